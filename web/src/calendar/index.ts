export { CalendarSheet } from './CalendarSheet.js';
export { eventKind } from './kinds.js';
