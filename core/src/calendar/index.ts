export { eventFacts, happeningOf, movedEvent } from './kind.js';
export type { EventTimes } from './kind.js';
export { entriesOf } from './entries.js';
export type { Dated, Entry } from './entries.js';
export { zoneBlock } from './zone.js';
