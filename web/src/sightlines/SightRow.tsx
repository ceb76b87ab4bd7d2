import { TriangleAlert } from 'lucide-react';
import { memo, useMemo } from 'react';
import type { CSSProperties } from 'react';
import type { VirtualItem } from '@tanstack/react-virtual';
import { sure } from '@jigsaw/core/lists';
import type { SightCell } from '@jigsaw/core/sightlines';
import { counted } from '@jigsaw/core/text';
import type { ToCheck } from '../checks/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { hueOfGroup } from '../look/index.js';
import { nameOfSpot } from '../page/index.js';
import { KindIcon } from '../release/index.js';
import type { SightColumn, SightSpot } from './columns.js';
import type { SeenActivity } from './lines.js';
import { SightGlyph } from './SightGlyph.js';
import { Band } from './sightGridLook.js';
import { sayCell } from './words.js';

interface SightRowProps {
  readonly index: number;
  readonly top: number;
  readonly activity: SeenActivity;
  readonly toCheck: readonly ToCheck[] | undefined;
  /** Whether the cells are as they are now. */
  readonly isNow: boolean;
  readonly cells: readonly SightCell[];
  readonly columns: readonly SightColumn[];
  readonly shown: readonly VirtualItem[];
  /** Says which columns are shown, and how wide: others than before are drawn anew. */
  readonly shownKey: string;
  /** The column that the focus is in; null: it is in another row. */
  readonly current: number | null;
  /** The column whose reasons are told. */
  readonly chosen: number | null;
  readonly onChoose: (spot: SightSpot) => void;
}

/** The line of one activity. It is drawn again for what changed in it alone, so that scrolling draws what is new. */
export const SightRow = memo(
  function SightRow({
    index,
    top,
    activity,
    toCheck,
    isNow,
    cells,
    columns,
    shown,
    current,
    chosen,
    onChoose,
  }: SightRowProps) {
    // Saved audiences overlap: there is no number of people that they have together.
    const isBanded = columns[0]?.of.kind !== 'people' && cells.every(({ code }) => code === 'common');
    const ringed = useMemo(() => sayByColumn(isNow ? (toCheck ?? []) : []), [isNow, toCheck]);
    return (
      <div
        role="row"
        aria-rowindex={index + 2}
        data-chosen={chosen === null ? undefined : ''}
        style={{ top }}
      >
        <Name activity={activity} toCheck={toCheck} />
        {isBanded && <CommonBand cells={cells} />}
        {shown.map(({ index: column, start, size, key }) => (
          <Cell
            key={key}
            activity={activity}
            group={sure(columns[column])}
            cell={sure(cells[column])}
            toCheck={ringed.get(sure(columns[column]).key)}
            row={index}
            column={column}
            isBanded={isBanded}
            isCurrent={current === column}
            isChosen={chosen === column}
            left={start}
            width={size}
            onChoose={onChoose}
          />
        ))}
      </div>
    );
  },
  ({ shown: _before, ...before }, { shown: _after, ...after }) =>
    (Object.keys(after) as (keyof typeof after)[]).every((key) => Object.is(before[key], after[key])),
);

/** What is to be checked about an activity, by the columns that it is about. */
function sayByColumn(toCheck: readonly ToCheck[]): ReadonlyMap<string, string> {
  const said = new Map<string, string>();
  for (const { says, at } of toCheck)
    for (const key of at)
      said.set(key, [said.get(key), says].filter((each) => each !== undefined).join('; '));
  return said;
}

/** Pieces that stand for no group have no hue of one. */
const noHue = {
  '--hue': 'var(--ink-2)',
  '--hue-ink': 'var(--ink)',
  '--hue-tint': 'var(--sunk)',
} as CSSProperties;

function Name({ activity, toCheck }: Pick<SightRowProps, 'activity' | 'toCheck'>) {
  const { dates } = useCourse();
  const { title, kind, schedule } = activity;
  const when = schedule.due ?? schedule.closes;
  const said = (toCheck ?? []).map(({ says }) => says);
  return (
    <div role="rowheader" aria-colindex={1} title={[title, ...said].join('\n')}>
      <KindIcon kind={kind} size={17} />
      <span>
        <b>
          {toCheck && (
            <>
              <TriangleAlert size={13} role="img" aria-label={`To check: ${said.join('; ')}`} />{' '}
            </>
          )}
          {title}
        </b>
        <small>
          {when === null
            ? (kindOf(kind)?.word ?? kind)
            : `${schedule.due ? 'due' : 'closes'} ${dates.dateTime(when)}`}
        </small>
      </span>
    </div>
  );
}

function CommonBand({ cells }: { readonly cells: readonly SightCell[] }) {
  const { dates } = useCourse();
  const said = useMemo(() => {
    const [first] = cells;
    if (!first) return null;
    const all = cells.reduce((sum, { members }) => sum + members, 0);
    const see = cells.reduce((sum, cell) => sum + cell.see, 0);
    const isSome = first.from === null && see < all;
    return {
      from: first.from,
      people: isSome ? `${see} of ${counted(all, 'student')}` : counted(all, 'student'),
    };
  }, [cells]);
  if (!said) return null;
  const { from, people } = said;
  return (
    <Band aria-hidden="true" data-later={from === null ? undefined : ''}>
      <span>
        One copy for {people}
        {from !== null && ` from ${dates.dateTime(new Date(from).toISOString())}`}
      </span>
    </Band>
  );
}

interface CellProps {
  /** What is to be checked here, in words. */
  readonly toCheck: string | undefined;
  readonly activity: SeenActivity;
  readonly group: SightColumn;
  readonly cell: SightCell;
  readonly row: number;
  readonly column: number;
  readonly isCurrent: boolean;
  readonly isChosen: boolean;
  /** One band stands across the whole line. */
  readonly isBanded: boolean;
  readonly left: number;
  readonly width: number;
  readonly onChoose: (spot: SightSpot) => void;
}

const Cell = memo(function Cell(props: CellProps) {
  const {
    activity,
    toCheck,
    group,
    cell,
    row,
    column,
    isCurrent,
    isChosen,
    isBanded,
    left,
    width,
    onChoose,
  } = props;
  const { dates } = useCourse();
  const dayOf = (at: number) => dates.day(new Date(at).toISOString()).split(' ')[1] ?? '';
  const says = `${group.name}, ${activity.title}: ${sayCell(cell, dates, group.of.kind)}${toCheck === undefined ? '' : `. To check: ${toCheck}`}`;
  return (
    <div
      role="gridcell"
      aria-colindex={column + 2}
      aria-label={says}
      aria-selected={isChosen}
      title={says}
      data-spot={nameOfSpot({ row, column })}
      data-chosen={isChosen || undefined}
      data-ringed={(toCheck !== undefined && !isBanded) || undefined}
      tabIndex={isCurrent ? 0 : -1}
      style={{ left, width, ...(group.number === null ? noHue : hueOfGroup(group.number)) }}
      onClick={() => onChoose({ activityId: activity.activityId, column: group.key })}
    >
      <SightGlyph cell={cell} number={group.number} isBanded={isBanded} dayOf={dayOf} />
    </div>
  );
});
