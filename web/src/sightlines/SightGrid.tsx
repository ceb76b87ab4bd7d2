import { useVirtualizer } from '@tanstack/react-virtual';
import { UserX } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { CSSProperties, KeyboardEvent } from 'react';
import type { ActivityId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { SightCell } from '@jigsaw/core/sightlines';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { Emblem, hueOfGroup } from '../look/index.js';
import { after, focusOn, nameOfSpot, spotOf, useAim, useLines, usualRect } from '../page/index.js';
import type { Spot } from '../page/index.js';
import { KindIcon, stateWords } from '../release/index.js';
import type { SeenActivity, SightLine } from './lines.js';
import { SightGlyph } from './SightGlyph.js';
import { Band, headPx, leastPx, namePx, rowPx, Sheet } from './sightGridLook.js';
import { sayCell } from './words.js';

/** A group, or the students who are in none. */
export interface SightColumn {
  readonly groupId: GroupId | null;
  /** null: no group's. */
  readonly number: number | null;
  readonly name: string;
}
export const noGroup: SightColumn = { groupId: null, number: null, name: 'No group' };

export interface SightSpot {
  readonly activityId: ActivityId;
  readonly groupId: GroupId | null;
}

interface SightGridProps {
  readonly columns: readonly SightColumn[];
  readonly lines: readonly SightLine[];
  readonly chosen: SightSpot | null;
  readonly onChoose: (spot: SightSpot) => void;
}

/** Activities by groups. Only what is in view is drawn, in both directions; arrow keys go from cell to cell, and Enter asks why. */
export function SightGrid({ columns: groups, lines, chosen, onChoose }: SightGridProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const firstRow = lines.findIndex(({ kind }) => kind === 'activity');
  const [spot, setSpot] = useState<Spot>({ row: firstRow, column: 0 });
  const aim = useAim<Spot>((next) => focusOn(scroller, next));
  const rows = useLines({ count: lines.length, linePx: rowPx, scroller, headPx, beyond: 8 });
  const widthPx = Math.max(
    leastPx,
    Math.floor(((rows.scrollRect?.width ?? usualRect.width) - namePx) / Math.max(1, groups.length)),
  );
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers change with scrolling, which re-renders this component by itself
  const columns = useVirtualizer({
    horizontal: true,
    count: groups.length,
    getScrollElement: () => scroller,
    estimateSize: () => widthPx,
    paddingStart: namePx,
    scrollPaddingStart: namePx,
    overscan: 3,
    initialRect: usualRect,
    getItemKey: (index) => `${groups[index]?.groupId ?? 'none'} ${widthPx}`,
  });
  const shown = columns.getVirtualItems();
  const onKey = (event: KeyboardEvent) => {
    const at = aim.at() ?? spot;
    const next = after(event, at, lines.length - 1, groups.length - 1);
    if (!next) return;
    event.preventDefault();
    // Lines that only say what follows have no cells.
    const row = nearestActivity(lines, next.row, next.row < at.row ? -1 : 1) ?? at.row;
    setSpot({ ...next, row });
    rows.scrollToIndex(row);
    columns.scrollToIndex(next.column);
    aim.to({ ...next, row });
  };
  return (
    <Sheet
      ref={setScroller}
      role="grid"
      aria-label="Who sees what"
      aria-rowcount={lines.length + 1}
      aria-colcount={groups.length + 1}
      onKeyDown={onKey}
      onFocus={(event) => aim.at() ?? setSpot(spotOf(event) ?? spot)}
    >
      <div role="rowgroup" data-head style={{ width: columns.getTotalSize() }}>
        <div role="row" aria-rowindex={1}>
          <div role="columnheader" data-corner aria-colindex={1} style={{ position: 'sticky' }}>
            <span>Arrow keys move · Enter says why</span>
          </div>
          {shown.map(({ index, start, size, key }) => {
            const group = sure(groups[index]);
            return (
              <div
                key={key}
                role="columnheader"
                aria-colindex={index + 2}
                title={group.name}
                style={{ left: start, width: size }}
              >
                {group.number === null ? (
                  <UserX size={22} aria-hidden="true" />
                ) : (
                  <Emblem number={group.number} size={32} />
                )}
                <span>{group.name}</span>
              </div>
            );
          })}
        </div>
      </div>
      <div
        role="rowgroup"
        data-body
        style={{ width: columns.getTotalSize(), height: rows.getTotalSize() - headPx }}
      >
        {rows.getVirtualItems().map(({ index, start }) => {
          const line = sure(lines[index]);
          const place = { top: start - headPx };
          if (line.kind === 'state')
            return (
              <div
                key={line.state}
                role="row"
                aria-rowindex={index + 2}
                data-state={line.state}
                style={place}
              >
                <span role="rowheader" style={{ display: 'inline', background: 'none', border: 0 }}>
                  {stateWords[line.state]} · {line.count}
                </span>
              </div>
            );
          const { activity, cells } = line;
          const isBanded = cells.every(({ code }) => code === 'common');
          const isChosen = chosen?.activityId === activity.activityId;
          return (
            <div
              key={activity.activityId}
              role="row"
              aria-rowindex={index + 2}
              data-chosen={isChosen || undefined}
              style={place}
            >
              <Name activity={activity} />
              <CommonBand cells={cells} />
              {shown.map(({ index: column, start: left, size, key }) => (
                <Cell
                  key={key}
                  activity={activity}
                  group={sure(groups[column])}
                  cell={sure(cells[column])}
                  spot={{ row: index, column }}
                  isBanded={isBanded}
                  isCurrent={spot.row === index && spot.column === column}
                  isChosen={isChosen && chosen.groupId === sure(groups[column]).groupId}
                  style={{ left, width: size }}
                  onChoose={onChoose}
                />
              ))}
            </div>
          );
        })}
      </div>
    </Sheet>
  );
}

/** Pieces that stand for no group have no hue of one. */
const noHue = {
  '--hue': 'var(--ink-2)',
  '--hue-ink': 'var(--ink)',
  '--hue-tint': 'var(--sunk)',
} as CSSProperties;

function nearestActivity(lines: readonly SightLine[], from: number, step: 1 | -1): number | null {
  for (const by of [step, -step])
    for (let row = Math.max(0, from); row >= 0 && row < lines.length; row += by)
      if (lines[row]?.kind === 'activity') return row;
  return null;
}

function Name({ activity }: { readonly activity: SeenActivity }) {
  const { dates } = useCourse();
  const { title, kind, schedule } = activity;
  const when = schedule.due ?? schedule.closes;
  return (
    <div role="rowheader" aria-colindex={1} title={title}>
      <KindIcon kind={kind} size={17} />
      <span>
        <b>{title}</b>
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
    if (!first || !cells.every(({ code }) => code === 'common')) return null;
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
  readonly activity: SeenActivity;
  readonly group: SightColumn;
  readonly cell: SightCell;
  readonly spot: Spot;
  readonly isCurrent: boolean;
  readonly isChosen: boolean;
  /** One band stands across the whole line. */
  readonly isBanded: boolean;
  readonly style: { readonly left: number; readonly width: number };
  readonly onChoose: (spot: SightSpot) => void;
}

function Cell({ activity, group, cell, spot, isCurrent, isChosen, isBanded, style, onChoose }: CellProps) {
  const { dates } = useCourse();
  const choose = () => onChoose({ activityId: activity.activityId, groupId: group.groupId });
  const dayOf = (at: number) => dates.day(new Date(at).toISOString()).split(' ')[1] ?? '';
  const says = `${group.name}, ${activity.title}: ${sayCell(cell, dates)}`;
  return (
    <div
      role="gridcell"
      aria-colindex={spot.column + 2}
      aria-label={says}
      aria-selected={isChosen}
      title={says}
      data-spot={nameOfSpot(spot)}
      data-chosen={isChosen || undefined}
      tabIndex={isCurrent ? 0 : -1}
      style={{ ...style, ...(group.number === null ? noHue : hueOfGroup(group.number)) }}
      onClick={choose}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        choose();
      }}
    >
      <SightGlyph cell={cell} number={group.number} isBanded={isBanded} dayOf={dayOf} />
    </div>
  );
}
