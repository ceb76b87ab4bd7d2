import { ChevronDown } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView, MovesAct } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { Dates } from '../look/index.js';
import { Button, Emblem, Key, Popup, FootBar, Spoken } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { sayAct } from './sayMoves.js';
import type { BoardActs } from './useBoard.js';

const Hints = styled(FootBar)`
  background: var(--surface);
  white-space: nowrap;
  overflow: hidden;
  flex-wrap: nowrap;
  > :first-child {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  kbd {
    margin-right: 4px;
  }
`;

/** How far the students have come with choosing. */
function sayChoosing({ set, students }: BoardView, dates: Dates): string {
  const { opens, closes } = sure(set.signUp);
  const chosen = `${students.length - set.unplaced} of ${students.length} have a place.`;
  if (opens && !dates.isPast(opens))
    return `Students choose their places from ${dates.dateTime(opens)}. ${chosen}`;
  if (closes && dates.isPast(closes)) return `Choosing ended on ${dates.dateTime(closes)}. ${chosen}`;
  return `Students are choosing${closes ? ` until ${dates.dateTime(closes)}` : ' until you freeze the set'}. ${chosen} You can place them too.`;
}

function PlaceIn({
  board,
  onPlace,
}: {
  readonly board: BoardView;
  readonly onPlace: (groupId: BoardView['groups'][number]['id']) => void;
}) {
  return (
    <MenuTrigger>
      <Button isSmall>
        Place in…
        <ChevronDown size={13} aria-hidden="true" />
      </Button>
      <Popup placement="top">
        <Menu aria-label="Place in" items={board.groups}>
          {(group) => (
            <MenuItem
              id={group.id}
              textValue={group.name}
              onAction={() => onPlace(group.id)}
              style={{ display: 'flex', alignItems: 'center', gap: 8 }}
            >
              <Emblem number={group.number} size={24} />
              {group.name}
            </MenuItem>
          )}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}

interface BoardHintsProps {
  readonly board: BoardView;
  readonly acts: BoardActs;
  /** The number of a group, as far as it is typed. */
  readonly typed: string;
  /** What someone else just did; null: nothing. */
  readonly othersAct: MovesAct | null;
  readonly onMoves: () => void;
}

/** What can be done now with what is selected, and whether all is saved. */
export function BoardHints({ board, acts, typed, othersAct, onMoves }: BoardHintsProps) {
  const { dates } = useCourse();
  const { set } = board;
  return (
    <Hints>
      {typed !== '' ? (
        <b>To group {typed}…</b>
      ) : acts.selected.size > 0 ? (
        <>
          <b>{acts.selected.size} selected.</b>
          <span>Type a group’s number to place them there</span>
          <PlaceIn board={board} onPlace={(groupId) => acts.send(acts.selected, groupId)} />
          <span>
            <Key>U</Key>remove
          </span>
          {acts.selected.size > 1 && (
            <>
              <span>
                <Key>D</Key>spread
              </span>
              <span>
                <Key>S</Key>swap two
              </span>
            </>
          )}
          {acts.selected.size === 1 && set.hasLeaders && (
            <span>
              <Key>L</Key>make leader
            </span>
          )}
          <span>
            <Key>Esc</Key>deselect
          </span>
        </>
      ) : othersAct ? (
        <b>
          {sayAct(othersAct)}, {dates.time(othersAct.at)}
        </b>
      ) : set.signUp && !set.frozenAt ? (
        <span>{sayChoosing(board, dates)}</span>
      ) : set.isSynchronised ? (
        <span>These sections follow the registrar. The next sync proposes to undo moves made here.</span>
      ) : set.isExclusive ? (
        <span>Select students, then type a group’s number, or drag them. Shift and Ctrl select several.</span>
      ) : (
        <span>From the list on the left students get one more group; from a group they move.</span>
      )}
      {/* Those who do not see the Board hear of it too. */}
      <Spoken role="status">{othersAct && sayAct(othersAct)}</Spoken>
      <span className="grow" />
      {board.latest && (
        <Button kind="quiet" isSmall onPress={onMoves}>
          Moves…
        </Button>
      )}
      <span>
        {acts.isSaving
          ? 'Saving…'
          : acts.savedAt
            ? `Saved ${dates.time(new Date(acts.savedAt).toISOString())}`
            : 'Every change is saved at once'}
      </span>
    </Hints>
  );
}
