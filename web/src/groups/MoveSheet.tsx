import { useState } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/groups';
import type { GroupId } from '@jigsaw/core/ids';
import { Button, Field, PersonName, Sheet, Small } from '../look/index.js';
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

/** What moving does to work that is handed in, before it is done; and why, for the history of those who move. */
export function MoveSheet({ board, pending }: MoveSheetProps) {
  const { who, done, goOn, leave } = pending;
  const [why, setWhy] = useState('');
  const nameOf = (id: GroupId | null) => board.groups.find((group) => group.id === id)?.name ?? 'no group';
  return (
    <Sheet title={who.length === 1 ? `${who[0]!.person.name} has handed in` : `${who.length} of them have handed in`} onClose={leave}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          goOn(why.trim());
        }}
      >
        <List>
          {who.map(({ person, from, to, handIns }) => (
            <li key={`${person.enrolmentId} ${from}`}>
              <b>
                <PersonName name={person.name} reading={person.reading} />
              </b>
              <br />
              <Small>
                {nameOf(from)} → {nameOf(to)}. {handIns} {handIns === 1 ? 'hand-in of' : 'hand-ins of'} {nameOf(from)} {handIns === 1 ? 'stays' : 'stay'}{' '}
                credited to them, with the mark.
              </Small>
            </li>
          ))}
        </List>
        <p style={{ marginBottom: 12 }}>
          They lose the old group’s room at once{done.place.moves.some((move) => move.to !== null) && ' and enter the new one’s'}. What they wrote stays where
          it is, and what the new group has handed in already is not credited to them. It can be undone.
        </p>
        <Field label="Why, kept in their history (if you like)" value={why} onChange={setWhy} maxLength={300} placeholder="Timetable clash" autoFocus />
        <footer>
          <Button onPress={leave}>Leave it</Button>
          <Button kind="main" type="submit">
            {done.place.moves.length === 1 ? 'Move, credit stays' : `Move ${done.place.moves.length}, credit stays`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
