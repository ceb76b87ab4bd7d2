export { useMarkSeenMutation } from './copyApi.js';
export { CopyFrame } from './CopyFrame.js';
export { valuesOf } from './placeholders.js';
export { useSeen } from './useSeen.js';
