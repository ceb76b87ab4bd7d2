export { lettersOf, nameByPattern, namesFor } from './naming.js';
export { apply, countMembers, groupNumberTyped, inverse, movesTo, swap } from './placement.js';
export type { Conflict, Move, Place, Placed, Placement } from './placement.js';
export { fillRoom, sayForecast, sizesByCount, sizesBySize } from './sizes.js';
export type { RoomForecast, SizesForecast, SizesRefused } from './sizes.js';
