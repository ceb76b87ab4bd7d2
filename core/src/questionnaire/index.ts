export {
  faultsOf,
  isAnswered,
  isHeldBack,
  leastAnonymous,
  longestLong,
  longestShort,
  onlyAnswered,
  sayAnswer,
  tally,
} from './answers.js';
export type { Answer, Answers } from './answers.js';
export { questionnaireFacts, questionnaireRules } from './kind.js';
export { whyNotChanged } from './questions.js';
export type { Asks, ChoiceQuestion, Question, ScaleQuestion } from './questions.js';
