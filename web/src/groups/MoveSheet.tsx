import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/groups';
import type { GroupId } from '@jigsaw/core/ids';
import { Button, PersonName, Sheet, Small } from '../look/index.js';
import type { BoardActs } from './useBoard.js';

const List = styled.ul`
  display: grid;
  gap: 6px;
  margin: 10px 0;
  max-height: 240px;
  overflow: auto;
  li {
    padding: 6px 0;
    border-bottom: var(--hair);
  }
`;

interface MoveSheetProps {
  readonly board: BoardView;
  readonly pending: NonNullable<BoardActs['pending']>;
}

/** What moving does to work that is handed in, before it is done. */
export function MoveSheet({ board, pending }: MoveSheetProps) {
  const { who, done, goOn, leave } = pending;
  const nameOf = (id: GroupId | null | undefined) => board.groups.find((group) => group.id === id)?.name ?? 'no group';
  const to = new Map(done.place.moves.map((move) => [move.student, move.to]));
  return (
    <Sheet title={who.length === 1 ? `${who[0]!.name} has handed in` : `${who.length} of them have handed in`} onClose={leave}>
      <List>
        {who.map((student) => (
          <li key={student.enrolmentId}>
            <b>
              <PersonName name={student.name} reading={student.reading} />
            </b>
            <br />
            <Small>
              {nameOf(student.groupId)} → {nameOf(to.get(student.enrolmentId))}. {student.handIns} {student.handIns === 1 ? 'hand-in of' : 'hand-ins of'}{' '}
              {nameOf(student.groupId)} {student.handIns === 1 ? 'stays' : 'stay'} credited to them, with the mark.
            </Small>
          </li>
        ))}
      </List>
      <p>
        They lose the old group’s room at once{done.place.moves.some((move) => move.to !== null) && ' and enter the new one’s'}. What they wrote stays where it
        is, and what the new group has handed in already is not credited to them. It can be undone.
      </p>
      <footer>
        <Button onPress={leave}>Leave it</Button>
        <Button kind="main" onPress={goOn}>
          {done.place.moves.length === 1 ? 'Move, credit stays' : `Move ${done.place.moves.length}, credit stays`}
        </Button>
      </footer>
    </Sheet>
  );
}
