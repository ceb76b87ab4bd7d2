export { useAct } from './useAct.js';
export { saySaved, useAutosave } from './useAutosave.js';
export { useKeptDraft } from './useKeptDraft.js';
export { useVersionedDraft } from './useVersionedDraft.js';
