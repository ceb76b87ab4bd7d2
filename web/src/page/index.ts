export { belongTo, forgetBelongings } from './belongings.js';
export { mergeParts } from './merge.js';
export { useAct } from './useAct.js';
export { saySaved } from './useAutosave.js';
export { readStored, store, useStored } from './stored.js';
export { useKeptDraft } from './useKeptDraft.js';
export { useKey, useKeys } from './useKey.js';
export { useVersionedDraft } from './useVersionedDraft.js';
export { noteServerTime, useNow } from './useNow.js';
