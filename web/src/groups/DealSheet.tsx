import { useMemo, useState } from 'react';
import { RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardStudent, BoardView } from '@jigsaw/contract/groups';
import type { Place } from '@jigsaw/core/groups';
import { dealOut, sayForecast, shuffled } from '@jigsaw/core/groups';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { Button, Field, Label, Option, Sheet, Small } from '../look/index.js';
import { capacityOf, membersOf } from './useBoard.js';

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
type Whom = 'unplaced' | 'all';
const mostSeeds = 10_000;

interface DealSheetProps {
  readonly board: BoardView;
  readonly onDeal: (place: Place, says: string) => void;
  readonly onClose: () => void;
}

/** Gives out places in some order, with what comes of it before anything happens. One step of the Board: undone like any other. */
export function DealSheet({ board, onDeal, onClose }: DealSheetProps) {
  const unplaced = membersOf(board, null).length;
  const [whom, setWhom] = useState<Whom>(unplaced > 0 ? 'unplaced' : 'all');
  const [order, setOrder] = useState<Order>('random');
  const [seed, setSeed] = useState(() => String(Math.floor(Math.random() * mostSeeds)));
  const dealt = useMemo(() => deal(board, whom, order, Number(seed) || 0), [board, whom, order, seed]);
  const count = dealt.place.moves.length;
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
        <Choices value={whom} onChange={(next) => setWhom(next as Whom)}>
          <Label>Whom</Label>
          <Option value="unplaced" isDisabled={unplaced === 0}>
            <b>The {unplaced} unplaced</b>
            <Small>Whoever has a place keeps it.</Small>
          </Option>
          <Option value="all">
            <b>Everybody anew</b>
            <Small>All places are given out again; locked groups stay as they are.</Small>
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
            <Small>By number: who stands together in the class file is spread over the groups.</Small>
          </Option>
          <Option value="alphabet">
            <b>Alphabetically</b>
            <Small>By family name, one group after the other in turn.</Small>
          </Option>
        </Choices>
        {order === 'random' && <Field label="Seed" inputMode="numeric" value={seed} onChange={(next) => setSeed(next.replace(/\D/g, '').slice(0, 9))} />}
        <p style={{ marginTop: 12 }} role="status">
          <b>{sayForecast(dealt.sizes)}</b>
          {dealt.left > 0 &&
            ` ${dealt.left} ${dealt.left === 1 ? 'student finds' : 'students find'} no room and ${dealt.left === 1 ? 'stays' : 'stay'} unplaced.`}
        </p>
        <footer>
          <Button onPress={onClose}>Leave it</Button>
          <Button kind="main" type="submit" isDisabled={count === 0}>
            {count === 0 ? 'Nobody would move' : `Deal ${count} ${students}`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}

/** What dealing would do; sizes are those afterwards, larger groups first. */
export function deal(board: BoardView, whom: Whom, order: Order, seed: number): { place: Place; sizes: number[]; left: number } {
  const isLocked = new Set(board.groups.filter((group) => group.isLocked).map((group) => group.id));
  const isDealt = (student: BoardStudent) => student.groupId === null || (whom === 'all' && !isLocked.has(student.groupId));
  const dealtTo = board.students.filter(isDealt);
  const stays = (groupId: GroupId) => board.students.filter((student) => student.groupId === groupId && !isDealt(student)).length;
  const groups = board.groups.map((group) => ({ id: group.id, members: stays(group.id), capacity: capacityOf(board, group), isLocked: group.isLocked }));
  const { moves, left } = dealOut(groups, inOrder(dealtTo, order, seed));
  const from = new Map(board.students.map((student) => [student.enrolmentId, student.groupId]));
  const wanted = [...moves, ...left.map((student) => ({ student, to: null }))];
  const place = { moves: wanted.flatMap(({ student, to }) => (from.get(student) === to ? [] : [{ student, from: from.get(student)!, to }])) };
  const sizes = groups.map((group) => group.members + moves.filter((move) => move.to === group.id).length);
  return { place, sizes: sizes.sort((a, b) => b - a), left: left.length };
}

/** The Board has its students by family name already. */
function inOrder(students: readonly BoardStudent[], order: Order, seed: number): EnrolmentId[] {
  const ids = students.map((student) => student.enrolmentId);
  if (order === 'alphabet') return ids;
  const numbers = new Intl.Collator('en', { numeric: true });
  // Numbers, then whoever has none by the order in which they came.
  const key = (student: BoardStudent) => `${student.number ?? '\uffff'} ${student.enrolmentId}`;
  const byRoster = students.toSorted((a, b) => numbers.compare(key(a), key(b))).map((student) => student.enrolmentId);
  return order === 'roster' ? byRoster : shuffled(byRoster, seed);
}
