import { useParams } from 'react-router';
import { ProblemStrip } from '../api/index.js';
import { Empty, Waiting } from '../look/index.js';
import { Board } from './Board.js';
import { useReadBoardQuery } from './placingApi.js';

export function BoardPage() {
  const { setId = '' } = useParams();
  const board = useReadBoardQuery(setId);
  if (board.currentData) return <Board key={setId} board={board.currentData} />;
  if (board.error) {
    return 'status' in board.error && board.error.status === 404 ? (
      <Empty title="No such group set">It may have been removed.</Empty>
    ) : (
      <ProblemStrip of={board.error} onRetry={() => void board.refetch()} />
    );
  }
  return <Waiting what="the Board" rows={12} />;
}
