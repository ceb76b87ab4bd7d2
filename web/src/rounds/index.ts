export { Answered } from './Answered.js';
export { ofKind, stopsFor, useRound } from './round.js';
export { RoundStrip } from './RoundStrip.js';
export { useListRoomLinesQuery } from './roundsApi.js';
export { sayNeed } from './sayNeed.js';
export { RoundSoFar, useMinutes, WhereToGo } from './Stops.js';
