import type { KindFacts, KindRules } from '../release/index.js';
import type { Asks } from './questions.js';
import { notReadyToAsk } from './questions.js';

/** Questions that each student answers for themselves, by name or anonymously. */
export const questionnaireFacts: KindFacts<Asks> = {
  name: 'questionnaire',
  modes: () => ['own', 'common'],
  markFor: () => 'student',
  isHandedIn: false,
  isWork: true,
  isMarked: false,
  notReady: notReadyToAsk,
};

export type QuestionnaireAct = 'answer';

export const questionnaireRules: KindRules<QuestionnaireAct> = { acts: { answer: ['member'] } };
