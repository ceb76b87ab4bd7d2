export {
  useEditGroupsMutation,
  useLazyReadBoardQuery,
  useListSignUpsQuery,
  usePlaceStudentsMutation,
  useReadBoardQuery,
} from './placingApi.js';
export { added, asItIs } from './editedGroups.js';
export { HomeCells, topicsBeside } from './HomeCells.js';
export { MoveSheet } from './MoveSheet.js';
export { capacityOf } from './seating.js';
export { useBoard } from './useBoard.js';
