import { useState } from 'react';
import { RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { Button, Field, Option, PersonName, Sheet, Small } from '../look/index.js';
import type { BoardActs } from './useBoard.js';
import { counted } from '@jigsaw/core/text';

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

const Choices = styled(RadioGroup)`
  display: grid;
  gap: 6px;
  margin-bottom: 12px;
`;

interface MoveSheetProps {
  readonly board: BoardView;
  readonly pending: NonNullable<BoardActs['pending']>;
}

/** What moving does to work that is handed in, before it is done; and why, for the history of those who move. */
export function MoveSheet({ board, pending }: MoveSheetProps) {
  const { who, done, goOn, leave } = pending;
  const [why, setWhy] = useState('');
  const [credit, setCredit] = useState<'stays' | 'joins'>('stays');
  const comes = done.place.moves.some((move) => move.to !== null && move.to !== move.from);
  const nameOf = (id: GroupId | null) => board.groups.find((group) => group.id === id)?.name ?? 'no group';
  return (
    <Sheet
      title={
        who.length === 1
          ? `${sure(who[0]).person.name} has handed in`
          : `${who.length} of them have handed in`
      }
      onClose={leave}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          goOn(why.trim(), credit === 'joins');
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
                {nameOf(from)} → {nameOf(to)}. {counted(handIns, 'hand-in of', 'hand-ins of')} {nameOf(from)}{' '}
                {handIns === 1 ? 'stays' : 'stay'} credited to them, with the mark.
              </Small>
            </li>
          ))}
        </List>
        <p style={{ marginBottom: 12 }}>
          They leave the old group’s room at once{comes && ' and enter the new one’s'}. What they wrote stays
          in the old room.
        </p>
        {comes && (
          <Choices
            aria-label="Work of the new group"
            value={credit}
            onChange={(next) => setCredit(next as typeof credit)}
          >
            <Option value="stays">
              <b>What the new group has handed in is not theirs</b>
              <Small>They share what it hands in from now on.</Small>
            </Option>
            <Option value="joins">
              <b>They share what it handed in last, too</b>
              <Small>Where its mark is released already, release it again for them.</Small>
            </Option>
          </Choices>
        )}
        <Field
          label="Reason, kept in their history (optional)"
          value={why}
          onChange={setWhy}
          maxLength={300}
          placeholder="Timetable clash"
          autoFocus
        />
        <footer>
          <Button onPress={leave}>Cancel</Button>
          <Button kind="main" type="submit">
            {done.place.moves.length === 1
              ? 'Move, credit stays'
              : `Move ${done.place.moves.length}, credit stays`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
