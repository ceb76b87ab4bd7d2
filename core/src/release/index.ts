export { atLeast, decide } from './decide.js';
export type { Access, Decision, Reason } from './decide.js';
export { explain } from './explain.js';
export type { Wording } from './explain.js';
export type { Audience, AudienceEntry, CopyFacts, Instant, OutsiderRule, ReleaseFacts, ReleaseMode, ReleaseState, Role, Schedule, Viewer } from './facts.js';
export { inOrder } from './schedule.js';
export { transition } from './transition.js';
export type { ReleaseEvent, Transition } from './transition.js';
