export { CopySheet } from './CopySheet.js';
export { ArchivedStrip } from './ArchivedStrip.js';
export {
  madeTags,
  setsApi,
  useCopyGroupSetMutation,
  useFreezeGroupSetMutation,
  useListGroupSetsQuery,
  useArchiveGroupSetMutation,
} from './setsApi.js';
export { SetSheet, SignUpFields, Tickbox } from './SetSheet.js';
