import { Pin } from 'lucide-react';
import { styled } from 'styled-components';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { Emblem, hueOfGroup, PersonName, Tag } from '../look/index.js';
import { figuresOf } from './cardFigures.js';
import { seatsNow } from './dealProblem.js';
import type { Seats } from './dealProblem.js';

const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  grid-auto-rows: max-content;
  gap: 8px;
  padding: 10px 12px;
  overflow: auto;
  align-content: start;
`;
const Card = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 4px;
  content-visibility: auto;
  contain-intrinsic-size: auto 160px;
  header {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 2px 4px 4px;
  }
  footer {
    display: flex;
    flex-wrap: wrap;
    gap: 0 8px;
    margin: 4px 4px 0;
    padding: 4px 2px 0;
    border-top: var(--hair);
    color: var(--ink-2);
  }
  footer small {
    font: var(--t-12);
  }
  footer small:last-child:not(:first-child) {
    margin-left: auto;
  }
  h3 {
    flex: 1;
    font: var(--h-14);
    font-size: 15px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Seat = styled.button`
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 26px;
  padding: 2px 6px;
  border: 0;
  border-radius: var(--r-1);
  background: none;
  color: var(--ink-2);
  font: var(--t-13);
  text-align: left;
  cursor: pointer;
  outline-offset: -2px;
  > span:first-child {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover {
    background: var(--wash);
  }
  &[data-moved] {
    background: var(--wash-2);
    color: var(--ink);
    font-weight: 620;
  }
  &[aria-pressed='true'] {
    color: var(--ink);
  }
  &[data-shown] {
    box-shadow: inset 0 0 0 2px var(--ink);
    background: var(--wash-2);
    color: var(--ink);
  }
  small {
    display: flex;
    align-items: center;
    gap: 2px;
    color: var(--ink-2);
  }
`;

/** A name that is read and not pressed. */
export const Plain = styled.li`
  padding: 3px 6px;
  border-radius: var(--r-1);
  color: var(--ink-2);
  font: var(--t-13);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  &[data-shown] {
    box-shadow: inset 0 0 0 2px var(--ink);
    background: var(--wash-2);
    color: var(--ink);
  }
  &[data-differs] {
    background: var(--wash-2);
    color: var(--ink);
  }
`;
/** A class that no one has placed yet is told on the Board; here it stands beside the groups. */
const mostUnseated = 12;

interface DealCardsProps {
  readonly board: BoardView;
  readonly seats: Seats;
  readonly pins: ReadonlyMap<EnrolmentId, GroupId>;
  /** Who a rule does not reach, while that is looked at. */
  readonly shown: ReadonlySet<EnrolmentId>;
  readonly onPin: (student: EnrolmentId, groupId: GroupId) => void;
  readonly rules: readonly DealRule[];
}

/** The groups as a deal has them, and from where each comes who would move. Press a name to keep it where it is. */
export function DealCards({ board, seats, pins, shown, onPin, rules }: DealCardsProps) {
  const now = seatsNow(board);
  const unseated = board.students.filter((student) => (seats.get(student.enrolmentId) ?? null) === null);
  return (
    <Cards>
      {unseated.length > 0 && (
        <Card aria-label="In no group">
          <header>
            <h3>In no group</h3>
            <Tag $look="needs">{unseated.length}</Tag>
          </header>
          <ul>
            {unseated.slice(0, mostUnseated).map((student) => (
              <Plain key={student.enrolmentId} data-shown={shown.has(student.enrolmentId) || undefined}>
                <PersonName name={student.name} reading={student.reading} />
              </Plain>
            ))}
            {unseated.length > mostUnseated && <Plain>and {unseated.length - mostUnseated} more</Plain>}
          </ul>
        </Card>
      )}
      {board.groups.map((group) => (
        <Card
          key={group.id}
          style={hueOfGroup(group.number)}
          aria-label={`Group ${group.number}, ${group.name}`}
        >
          <header>
            <Emblem number={group.number} size={26} />
            <h3>{group.name}</h3>
            {group.isLocked && <Tag>Locked</Tag>}
          </header>
          {membersIn(board, seats, group.id).map((student) => {
            const isMoved = now.get(student.enrolmentId) !== group.id;
            const isPinned = pins.get(student.enrolmentId) === group.id;
            return (
              <Seat
                key={student.enrolmentId}
                type="button"
                aria-pressed={isPinned}
                data-moved={isMoved || undefined}
                data-shown={shown.has(student.enrolmentId) || undefined}
                onClick={() => onPin(student.enrolmentId, group.id)}
              >
                <span>
                  <PersonName name={student.name} reading={student.reading} />
                </span>
                {isPinned && <Pin size={13} aria-label="pinned" />}
                {isMoved && <From board={board} groupId={now.get(student.enrolmentId) ?? null} />}
              </Seat>
            );
          })}
          <Figures figures={figuresOf(membersIn(board, seats, group.id), rules)} />
        </Card>
      ))}
    </Cards>
  );
}

function Figures({ figures }: { readonly figures: readonly string[] }) {
  if (figures.length === 0) return null;
  return (
    <footer>
      {figures.map((figure) => (
        <small key={figure} title={figure}>
          {figure}
        </small>
      ))}
    </footer>
  );
}

export const membersIn = (board: BoardView, seats: Seats, groupId: GroupId): readonly BoardStudent[] =>
  board.students.filter((student) => seats.get(student.enrolmentId) === groupId);

function From({ board, groupId }: { readonly board: BoardView; readonly groupId: GroupId | null }) {
  const group = board.groups.find((each) => each.id === groupId);
  if (!group) return <small>new</small>;
  return (
    <small title={`from ${group.name}`}>
      <Emblem number={group.number} size={18} />
      {group.number}
    </small>
  );
}
