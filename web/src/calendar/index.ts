export { CalendarSheet } from './CalendarSheet.js';
export { CalendarSheetButton } from './CalendarSheetButton.js';
export { eventKind } from './kinds.js';
