export { eventFacts, eventFor, happeningOf, inTurn, movedEvent } from './kind.js';
export type { EventTimes, OwnTime } from './kind.js';
export { entriesOf } from './entries.js';
export type { Dated, Entry } from './entries.js';
export { zoneBlock } from './zone.js';
