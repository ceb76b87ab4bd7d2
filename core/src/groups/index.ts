export { lettersOf, nameByPattern, namesFor } from './naming.js';
export { apply, countMembers, groupNumberTyped, inverse, movesTo, swap } from './placement.js';
export type { Conflict, Move, Place, Placed, Placement } from './placement.js';
export { fillRoom, sayForecast, sizesByCount, sizesBySize } from './sizes.js';
export type { RoomForecast, SizesForecast, SizesRefused } from './sizes.js';
export { dealOut, emptiest, shuffled } from './deal.js';
export type { DealtGroup, DealtOut } from './deal.js';
export { sayNoPlace, signUpState, whyNoPlace } from './signUp.js';
export type { NoPlace, SignUp, SignUpState, WantedPlace } from './signUp.js';
