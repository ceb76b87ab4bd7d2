import { useMemo, useState } from 'react';
import { RadioGroup, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { Place } from '@jigsaw/core/placing';
import { dealOut, movesOut } from '@jigsaw/core/placing';
import { sayForecast } from '@jigsaw/core/sets';
import { shuffled } from '@jigsaw/core/random';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { Button, Emblem, Field, Label, Option, Sheet, Small } from '../look/index.js';
import { capacityOf, isIn, membersOf } from './seating.js';
import type { Chosen } from './seating.js';
import { counted } from '@jigsaw/core/text';

const Choices = styled(RadioGroup)`
  display: grid;
  gap: 6px;
  margin-bottom: 12px;
  > label[data-rac],
  > span:first-child {
    margin-bottom: 2px;
  }
`;
type Order = 'random' | 'roster' | 'alphabet';
type Who = 'unplaced' | 'selected' | 'all';
const mostSeeds = 10_000;

const Groups = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  max-height: 132px;
  overflow: auto;
  padding: 2px;
  button {
    display: flex;
    align-items: center;
    gap: 5px;
    height: 28px;
    padding: 0 8px 0 3px;
    border: 1px solid var(--line);
    border-radius: var(--r-2);
    background: none;
    color: var(--ink-3);
    font: var(--t-12);
    cursor: pointer;
  }
  button svg {
    opacity: 0.35;
  }
  button[data-selected] {
    border-color: var(--ink);
    background: var(--surface);
    color: var(--ink);
  }
  button[data-selected] svg {
    opacity: 1;
  }
`;

interface DealSheetProps {
  readonly board: BoardView;
  readonly selected: Chosen;
  readonly onDeal: (place: Place, says: string) => void;
  readonly onClose: () => void;
}

/** Gives out places in some order, with what comes of it before anything happens. One step of the Board: undone like any other. */
export function DealSheet({ board, selected, onDeal, onClose }: DealSheetProps) {
  const unplaced = membersOf(board, null).length;
  const [who, setWho] = useState<Who>(selected.size > 0 ? 'selected' : unplaced > 0 ? 'unplaced' : 'all');
  const [into, setInto] = useState<ReadonlySet<GroupId>>(
    () => new Set(board.groups.flatMap((group) => (group.isLocked ? [] : [group.id]))),
  );
  const [order, setOrder] = useState<Order>('random');
  const [seed, setSeed] = useState(() => String(Math.floor(Math.random() * mostSeeds)));
  const dealt = useMemo(
    () => deal(board, who, order, Number(seed) || 0, selected, into),
    [board, who, order, seed, selected, into],
  );
  const count = new Set(dealt.place.moves.map((move) => move.student)).size;
  const students = count === 1 ? 'student' : 'students';
  return (
    <Sheet title="Deal places" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (count === 0) return;
          onDeal(
            dealt.place,
            `${count} ${students} dealt ${order === 'random' ? `at random, seed ${seed}` : order === 'roster' ? 'in roster order' : 'alphabetically'}`,
          );
          onClose();
        }}
      >
        <Choices value={who} onChange={(next) => setWho(next as Who)}>
          <Label>Who</Label>
          {selected.size > 0 && (
            <Option value="selected">
              <b>The {selected.size} selected</b>
              <Small>Spread over the groups that you choose below.</Small>
            </Option>
          )}
          <Option value="unplaced" isDisabled={unplaced === 0}>
            <b>The {unplaced} unplaced</b>
            <Small>People already placed stay where they are.</Small>
          </Option>
          <Option value="all">
            <b>Everyone again</b>
            <Small>All places are dealt again. Locked groups stay as they are.</Small>
          </Option>
        </Choices>
        <Choices value={order} onChange={(next) => setOrder(next as Order)}>
          <Label>In which order</Label>
          <Option value="random">
            <b>At random</b>
            <Small>The same seed gives the same groups again, on any machine.</Small>
          </Option>
          <Option value="roster">
            <b>In roster order</b>
            <Small>By student number, one group after the other in turn.</Small>
          </Option>
          <Option value="alphabet">
            <b>Alphabetically</b>
            <Small>By family name, one group after the other in turn.</Small>
          </Option>
        </Choices>
        {order === 'random' && (
          <Field
            label="Seed"
            inputMode="numeric"
            value={seed}
            onChange={(next) => setSeed(next.replace(/\D/g, '').slice(0, 9))}
          />
        )}
        <div style={{ marginTop: 12, display: 'grid', gap: 4 }}>
          <Label id="into-which">Into which groups</Label>
          <Groups
            aria-labelledby="into-which"
            selectionMode="multiple"
            selectedKeys={into}
            onSelectionChange={(keys) => setInto(new Set([...keys] as GroupId[]))}
          >
            {board.groups.map((group) => (
              <ToggleButton key={group.id} id={group.id} isDisabled={group.isLocked}>
                <Emblem number={group.number} size={22} />
                {group.name}
              </ToggleButton>
            ))}
          </Groups>
        </div>
        <p style={{ marginTop: 12 }} role="status">
          <b>{sayForecast(dealt.sizes)}</b>
          {dealt.left > 0 &&
            ` ${counted(dealt.left, 'student finds', 'students find')} no room and ${dealt.left === 1 ? 'stays' : 'stay'} unplaced.`}
        </p>
        <footer>
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" type="submit" isDisabled={count === 0}>
            {count === 0 ? 'No one would move' : `Deal ${count} ${students}`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}

/** What dealing would do; sizes are those afterwards, larger groups first.
 * @param into the groups that places are given out in. */
export function deal(
  board: BoardView,
  who: Who,
  order: Order,
  seed: number,
  selected: Chosen = new Map(),
  into: ReadonlySet<GroupId> = new Set(board.groups.map((group) => group.id)),
): { place: Place; sizes: number[]; left: number } {
  const isOpen = new Set(
    board.groups.filter((group) => !group.isLocked && into.has(group.id)).map((group) => group.id),
  );
  const placement = new Map(board.students.map((student) => [student.enrolmentId, student.seats]));
  /** Which of their places they give up for the one they are dealt. */
  const givesUp = ({ enrolmentId, seats }: BoardStudent): ReadonlySet<GroupId> | null => {
    const all = new Set(seats.map((seat) => seat.groupId));
    if (who === 'unplaced') return seats.length === 0 ? all : null;
    if (who === 'selected') {
      const from = selected.get(enrolmentId);
      if (from === undefined) return null;
      return board.set.isExclusive ? all : new Set(from === null ? [] : [from]);
    }
    // Anyone who sits in a group that is left as it is keeps their place.
    return [...all].every((groupId) => isOpen.has(groupId)) ? all : null;
  };
  const dealt = new Map(
    board.students.flatMap((student) => {
      const up = givesUp(student);
      return up ? [[student.enrolmentId, up] as const] : [];
    }),
  );
  const stays = (groupId: GroupId) =>
    board.students.filter(
      (student) => isIn(student, groupId) && !dealt.get(student.enrolmentId)?.has(groupId),
    ).length;
  const groups = board.groups.map((group) => ({
    id: group.id,
    members: stays(group.id),
    capacity: capacityOf(board, group),
    isLocked: !isOpen.has(group.id),
  }));
  const { moves, left } = dealOut(
    groups,
    inOrder(
      board.students.filter((student) => dealt.has(student.enrolmentId)),
      order,
      seed,
    ),
  );
  const toOf = new Map(moves.map((move) => [move.student, sure(move.to)]));
  const change = [...dealt].flatMap(([student, up]) => {
    const to = toOf.get(student) ?? null;
    const out = movesOut(placement, [student], (groupId) => up.has(groupId) && groupId !== to);
    const isThere = to !== null && sure(placement.get(student)).some((seat) => seat.groupId === to);
    const [first, ...more] = out;
    if (to === null || isThere) return out;
    return first ? [{ ...first, to }, ...more] : [{ student, from: null, to }];
  });
  const sizes = groups.map((group) => group.members + moves.filter((move) => move.to === group.id).length);
  return { place: { moves: change }, sizes: sizes.sort((a, b) => b - a), left: left.length };
}

/** The Board has its students by family name already. */
function inOrder(students: readonly BoardStudent[], order: Order, seed: number): EnrolmentId[] {
  const ids = students.map((student) => student.enrolmentId);
  if (order === 'alphabet') return ids;
  const numbers = new Intl.Collator('en', { numeric: true });
  // Numbers, then those who have none by the order in which they came.
  const key = (student: BoardStudent) => `${student.number ?? '\uffff'} ${student.enrolmentId}`;
  const byRoster = students
    .toSorted((a, b) => numbers.compare(key(a), key(b)))
    .map((student) => student.enrolmentId);
  return order === 'roster' ? byRoster : shuffled(byRoster, seed);
}
