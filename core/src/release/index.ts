export {
  audiencesOf,
  evaluated,
  reachesGroup,
  setsOfAudience,
  someGroups,
  theClass,
  wholeSet,
} from './audience.js';
export { briefElsewhere, briefFor, groupsOfLine, onlyFor } from './brief.js';
export type { BriefReader } from './brief.js';
export { collisionsOf, dayAt } from './collisions.js';
export type { Collision, DueFor } from './collisions.js';
export { partsChanged } from './content.js';
export type { Content, ContentPart } from './content.js';
export { atLeast, decide, isInAudience } from './decide.js';
export type { Access, Decision, Part, Reason } from './decide.js';
export { explain } from './explain.js';
export type { Wording } from './explain.js';
export type {
  Audience,
  AudienceEntry,
  CopyFacts,
  Extension,
  Instant,
  KeptAudience,
  KeptEntry,
  OutsiderRule,
  ReleaseFacts,
  ReleaseMode,
  ReleaseState,
  Schedule,
} from './facts.js';
export { whoseFigures } from './figures.js';
export type { Figure } from './figures.js';
export { hears } from './hearers.js';
export type { ConcernedCopies, Concerns, CopiesInView } from './hearers.js';
export { mayAct } from './kindRules.js';
export type { KindFacts } from './kindFacts.js';
export type { KindRules } from './kindRules.js';
export { momentsOf } from './moments.js';
export type { Moment } from './moments.js';
export { daysLater, offsetAt, scheduleLater } from './moved.js';
export { datesFor, inOrder } from './schedule.js';
export type { CopyDates, DateSource } from './schedule.js';
export { isOut, isReleased, stateAt } from './stateAt.js';
export type { StateAt } from './stateAt.js';
export { transition } from './transition.js';
export type { ReleaseEvent, Transition } from './transition.js';
