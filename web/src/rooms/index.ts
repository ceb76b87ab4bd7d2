export { useMarkSeenMutation } from './copyApi.js';
export { useListRoomsQuery } from './roomsApi.js';
export { StudentPage } from './StudentPage.js';
export { Things } from './Things.js';
export { Brief } from './Brief.js';
export { CopyFrame } from './CopyFrame.js';
export { valuesOf } from './placeholders.js';
export { useSeen, useSeenHere } from './useSeen.js';
