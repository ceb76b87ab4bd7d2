export { saySaved, useAutosave } from './useAutosave.js';
export { useKeptDraft } from './useKeptDraft.js';
