export { useAct } from './useAct.js';
export { saySaved } from './useAutosave.js';
export { useKeptDraft } from './useKeptDraft.js';
export { useVersionedDraft } from './useVersionedDraft.js';
