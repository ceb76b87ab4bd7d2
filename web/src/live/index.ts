export { useLiveChanges } from './useLiveChanges.js';
