export { CopySheet } from './CopySheet.js';
export { PutAwayStrip } from './PutAwayStrip.js';
export {
  madeTags,
  setsApi,
  useCopyGroupSetMutation,
  useFreezeGroupSetMutation,
  useListGroupSetsQuery,
  useOrderGroupSetsMutation,
  usePutAwayGroupSetMutation,
} from './setsApi.js';
export { SetSheet, SignUpFields, Tickbox } from './SetSheet.js';
