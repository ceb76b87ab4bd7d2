export {
  useEditGroupsMutation,
  useLazyReadBoardQuery,
  useListSignUpsQuery,
  usePlaceStudentsMutation,
  useReadBoardQuery,
} from './placingApi.js';
export { MoveSheet } from './MoveSheet.js';
export { capacityOf } from './seating.js';
export { useBoard } from './useBoard.js';
