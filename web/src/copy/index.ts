export { useMarkSeenMutation, useReadCopyQuery } from './copyApi.js';
export { CopyFrame } from './CopyFrame.js';
export { valuesOf } from './placeholders.js';
export { useKeptDraft } from './useKeptDraft.js';
export { useSeen } from './useSeen.js';
