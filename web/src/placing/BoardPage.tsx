import { useParams } from 'react-router';
import { isProblem, ProblemStrip, unshown } from '../api/index.js';
import { Empty, Waiting } from '../look/index.js';
import { Board } from './Board.js';
import { useReadBoardQuery } from './placingApi.js';

export function BoardPage() {
  const { setId = '' } = useParams();
  const board = useReadBoardQuery(setId);
  if (isProblem(board.error, 'not-found'))
    return <Empty title="No such group set">It may have been removed.</Empty>;
  if (unshown(board) !== undefined)
    return <ProblemStrip of={board.error} onRetry={() => void board.refetch()} />;
  if (board.currentData) return <Board key={setId} board={board.currentData} />;
  return <Waiting what="the Board" rows={12} />;
}
