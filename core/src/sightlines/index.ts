export { cellsAt } from './cells.js';
export type { SightCell, SightCode, SightOf } from './cells.js';
export { releaseAt, viewersAt } from './facts.js';
export type { SightActivity, SightCopy, SightFacts, SightPerson, SightSeat } from './facts.js';
export { changesOf, ticksOf } from './ticks.js';
export type { Tick } from './ticks.js';
export { whyOf } from './why.js';
export type { Explained, FormerMember, Why } from './why.js';
export { copiesThatMatter, foundIn } from './sight.js';
