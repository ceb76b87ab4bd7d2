export { ServerAway } from './ServerAway.js';
export { useLiveChanges } from './useLiveChanges.js';
