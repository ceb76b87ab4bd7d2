export { PractiseButton } from './PractiseButton.js';
export {
  useClearPracticeMutation,
  useRestorePracticeMutation,
  useStartPracticeMutation,
} from './practiceApi.js';
