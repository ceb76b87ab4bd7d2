import { useMemo } from 'react';
import { styled } from 'styled-components';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { Fit } from '@jigsaw/core/placing';
import { whereTheyFit } from '@jigsaw/core/placing';
import type { GroupId } from '@jigsaw/core/ids';
import { Emblem, Small, Tag } from '../look/index.js';
import { capacityOf, seatingOf } from './seating.js';
import type { Chosen } from './seating.js';

const Box = styled.section`
  padding: 10px 8px;
  border-top: var(--hair);
  h3 {
    font: var(--h-14);
    padding: 0 8px 4px;
  }
  button {
    display: grid;
    grid-template-columns: 30px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    width: 100%;
    padding: 4px 8px;
    border: 0;
    border-radius: var(--r-1);
    background: none;
    color: inherit;
    text-align: left;
    font: var(--t-13);
    cursor: pointer;
    outline-offset: -2px;
  }
  button:hover {
    background: var(--wash);
  }
  b {
    display: block;
  }
`;

const shownFits = 3;
const mostKinds = 6;

interface WhereTheyFitProps {
  readonly board: BoardView;
  readonly selected: Chosen;
  readonly onPlace: (groupId: GroupId) => void;
}

/** The groups that suit those who are selected, the best first, each with the reason. A press places them. */
export function WhereTheyFit({ board, selected, onPlace }: WhereTheyFitProps) {
  const fits = useMemo(() => fitsOf(board, selected).slice(0, shownFits), [board, selected]);
  if (selected.size === 0) return null;
  return (
    <Box aria-label="Where they fit">
      <h3>{selected.size === 1 ? 'Where they fit' : `Where these ${selected.size} fit`}</h3>
      {fits.length === 0 && (
        <p style={{ padding: '0 8px' }}>
          <Small>
            {selected.size === 1
              ? 'No other group has room.'
              : `No group has room for all ${selected.size}. Select fewer, or let a group hold more.`}
          </Small>
        </p>
      )}
      {fits.map((fit, at) => {
        const group = sure(board.groups.find((each) => each.id === fit.id));
        return (
          <button key={fit.id} type="button" onClick={() => onPlace(fit.id)}>
            <Emblem number={group.number} size={28} />
            <span>
              <b>{group.name}</b>
              <Small>{sayFit(fit)}</Small>
            </span>
            {at === 0 && <Tag>Best</Tag>}
          </button>
        );
      })}
    </Box>
  );
}

function fitsOf(board: BoardView, selected: Chosen): Fit[] {
  const seating = seatingOf(board);
  const comers = board.students.filter((student) => selected.has(student.enrolmentId));
  const categories = board.attributes
    .filter((attribute) => attribute.kind === 'category')
    .map((attribute) => attribute.name);
  const countsIn = new Map(
    categories.map((name) => [
      name,
      countsOf(board.students.flatMap((student) => student.attributes[name] ?? [])),
    ]),
  );
  // What nearly everyone has to themselves, no group can mix.
  const names = categories.filter((name) => sure(countsIn.get(name)).size <= mostKinds);
  const valuesOf = (students: readonly BoardStudent[]) =>
    Object.fromEntries(names.map((name) => [name, students.map((student) => student.attributes[name])]));
  const classOf = new Map(names.map((name) => [name, sure(countsIn.get(name))]));
  const here = new Set(comers.flatMap((student) => student.seats.map((seat) => seat.groupId)));
  const groups = board.groups
    .filter((group) => !here.has(group.id))
    .map((group) => {
      const own = sure(seating.get(group.id));
      return {
        id: group.id,
        members: own.length,
        capacity: capacityOf(board, group),
        isLocked: group.isLocked,
        values: valuesOf(own),
      };
    });
  return whereTheyFit(groups, { count: comers.length, values: valuesOf(comers) }, classOf);
}

function countsOf(values: readonly string[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return counts;
}

/** "2 free, evens out Timetable". */
function sayFit({ free, evens, tilts }: Fit): string {
  const parts = [
    free === null ? 'no limit' : `${free} free`,
    evens.length > 0 && `evens out ${evens.join(' and ')}`,
    tilts.length > 0 && `tilts ${tilts.join(' and ')}`,
  ];
  return parts.filter(Boolean).join(', ');
}
