import { useState } from 'react';
import { styled } from 'styled-components';
import type { BoardView, MovesAct } from '@jigsaw/contract/placing';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, GroupChip, Sheet, Small, Waiting } from '../look/index.js';
import { useReadMovesQuery } from './placingApi.js';
import { sayAct } from './sayMoves.js';

const Acts = styled.ol`
  list-style: none;
  margin: 0;
  > li {
    padding: 8px 0;
    border-bottom: var(--hair);
  }
  ul {
    margin: 4px 0 0;
    list-style: none;
  }
  ul li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 6px;
    padding: 2px 0 2px 12px;
  }
`;

interface MovesSheetProps {
  readonly board: BoardView;
  readonly onClose: () => void;
}

/** Everyone who was ever placed, moved or removed in a set, by the people who did it. */
export function MovesSheet({ board, onClose }: MovesSheetProps) {
  const [parts, setParts] = useState(1);
  return (
    <Sheet title={`Moves in ${board.set.name}`} onClose={onClose}>
      <Acts>
        <PartOfActs setId={board.set.id} before={null} parts={parts} onMore={() => setParts(parts + 1)} />
      </Acts>
    </Sheet>
  );
}

interface PartOfActsProps {
  readonly setId: string;
  readonly before: string | null;
  /** How many are shown, this one and those behind it. */
  readonly parts: number;
  readonly onMore: () => void;
}

/** Acts and, behind them, what was before: each part begins where the one above ends, also after that one has moved on. */
function PartOfActs({ setId, before, parts, onMore }: PartOfActsProps) {
  const { dates } = useCourse();
  const moves = useReadMovesQuery({ setId, before });
  if (unshown(moves) !== undefined)
    return (
      <li>
        <ProblemStrip of={moves.error} onRetry={() => void moves.refetch()} />
      </li>
    );
  if (!moves.data)
    return (
      <li>
        <Waiting what="the moves" rows={4} />
      </li>
    );
  const { acts, before: next } = moves.data;
  return (
    <>
      {acts.length === 0 && before === null && <li>No one has been placed yet.</li>}
      {acts.map((act) => (
        <li key={`${act.at} ${act.by}`}>
          <b>{sayAct(act)}</b> <Small>{dates.dateTime(act.at)}</Small>
          {act.why && <Small>. {act.why}</Small>}
          {act.count > 1 && <People act={act} />}
        </li>
      ))}
      {next && parts > 1 && <PartOfActs setId={setId} before={next} parts={parts - 1} onMore={onMore} />}
      {next && parts === 1 && (
        <li>
          <Button isSmall onPress={onMore}>
            Earlier moves
          </Button>
        </li>
      )}
    </>
  );
}

function People({ act }: { readonly act: MovesAct }) {
  const others = act.count - act.moves.length;
  return (
    <ul>
      {act.moves.map(({ enrolmentId, name, from, to }) => (
        <li key={enrolmentId}>
          {name}
          {from.map((group) => (
            <GroupChip key={group.number} {...group} look="line" />
          ))}
          <span aria-hidden="true">→</span>
          {to.map((group) => (
            <GroupChip key={group.number} {...group} look="solid" />
          ))}
          {to.length === 0 && <Small>no group</Small>}
        </li>
      ))}
      {others > 0 && (
        <li>
          <Small>and {counted(others, 'other')}</Small>
        </li>
      )}
    </ul>
  );
}
