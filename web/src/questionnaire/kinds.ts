import { ListChecks } from 'lucide-react';
import { lazy } from 'react';
import { QuestionnaireSettings } from '@jigsaw/contract/questionnaire';
import type { Progress } from '@jigsaw/contract/release';
import { questionnaireFacts } from '@jigsaw/core/questionnaire';
import type { KindOnPages } from '../kinds/index.js';

export const questionnaireKind: KindOnPages<QuestionnaireSettings> = {
  ...questionnaireFacts,
  word: 'Questionnaire',
  says: 'Questions that each student answers, by name or anonymously.',
  icon: ListChecks,
  settings: QuestionnaireSettings,
  usualPoints: null,
  SettingsForm: lazy(() => import('./SettingsForm.js')),
  afterDue: null,
  sayProgress: ({ isYours, state, done, asked }: Progress) => {
    if (isYours) return state === 'done' ? 'You have answered' : 'You have not answered yet';
    return done === null || asked === null
      ? 'Whether it was answered is not shown'
      : `${done} of ${asked} have answered`;
  },
  owed: 'To answer',
  Foreseen: lazy(() => import('./Foreseen.js')),
  Page: lazy(() => import('./QuestionnairePage.js')),
  OnDesk: null,
};
