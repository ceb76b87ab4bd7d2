import { useVirtualizer } from '@tanstack/react-virtual';
import { useState } from 'react';
import type { KeyboardEvent } from 'react';
import { sure } from '@jigsaw/core/lists';
import type { ToCheck } from '../checks/index.js';
import { after, focusOn, spotOf, useAim, useLines, usualRect, useWidthOf } from '../page/index.js';
import type { Spot } from '../page/index.js';
import { stateWords } from '../release/index.js';
import type { SightLine } from './lines.js';
import type { SightColumn, SightSpot } from './columns.js';
import { ColumnHead } from './ColumnHead.js';
import { headPx as head, leastPx, namePx, rowPx, Sheet } from './sightGridLook.js';
import { SightRow } from './SightRow.js';

interface SightGridProps {
  readonly columns: readonly SightColumn[];
  readonly lines: readonly SightLine[];
  readonly chosen: SightSpot | null;
  /** What is to be checked about an activity. */
  readonly toCheck: ReadonlyMap<string, readonly ToCheck[]>;
  /** Whether what is shown is now: what there is to check is of now. */
  readonly isNow: boolean;
  readonly onChoose: (spot: SightSpot) => void;
}

/** Activities by groups. Only what is in view is drawn, in both directions; arrow keys go from cell to cell, and Enter asks why. */
export function SightGrid({ columns: groups, lines, chosen, toCheck, isNow, onChoose }: SightGridProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  // Names of people and of audiences are long: where there are many, they stand upright.
  const isTurned = groups.length > 6 && (groups[0]?.number ?? null) === null;
  const headPx = isTurned ? head.turned : head.usual;
  const firstRow = lines.findIndex(({ kind }) => kind === 'activity');
  const [spot, setSpot] = useState<Spot>({ row: firstRow, column: 0 });
  const aim = useAim<Spot>((next) => focusOn(scroller, next));
  const rows = useLines({ count: lines.length, linePx: rowPx, scroller, headPx, beyond: 8 });
  const inView = useWidthOf(scroller);
  const widthPx = Math.max(leastPx, Math.floor((inView - namePx) / Math.max(1, groups.length)));
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
    getItemKey: (index) => `${groups[index]?.key} ${widthPx}`,
  });
  const shown = columns.getVirtualItems();
  const shownKey = shown.map(({ key }) => key).join();
  const onKey = (event: KeyboardEvent) => {
    const at = aim.at() ?? spot;
    // Of the cell that the keys have gone to, also where it is not drawn yet.
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      const [line, column] = [lines[at.row], groups[at.column]];
      if (line?.kind === 'activity' && column)
        onChoose({ activityId: line.activity.activityId, column: column.key });
      return;
    }
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
      style={{ '--head': `${headPx}px` }}
      onKeyDown={onKey}
      onFocus={(event) => aim.at() ?? setSpot(spotOf(event) ?? spot)}
    >
      <div role="rowgroup" data-head style={{ width: columns.getTotalSize() }}>
        <div role="row" aria-rowindex={1}>
          <div role="columnheader" data-corner aria-colindex={1} style={{ position: 'sticky' }}>
            <span>Arrow keys move · Enter says why</span>
          </div>
          {shown.map(({ index, start, size, key }) => (
            <ColumnHead
              key={key}
              column={sure(groups[index])}
              index={index}
              left={start}
              width={size}
              isTurned={isTurned}
            />
          ))}
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
          const isChosen = chosen?.activityId === activity.activityId;
          return (
            <SightRow
              key={activity.activityId}
              index={index}
              top={place.top}
              activity={activity}
              toCheck={toCheck.get(activity.activityId)}
              isNow={isNow}
              cells={cells}
              columns={groups}
              shown={shown}
              shownKey={shownKey}
              current={spot.row === index ? spot.column : null}
              chosen={isChosen ? groups.findIndex(({ key }) => key === chosen.column) : null}
              onChoose={onChoose}
            />
          );
        })}
      </div>
    </Sheet>
  );
}

function nearestActivity(lines: readonly SightLine[], from: number, step: 1 | -1): number | null {
  for (const by of [step, -step])
    for (let row = Math.max(0, from); row >= 0 && row < lines.length; row += by)
      if (lines[row]?.kind === 'activity') return row;
  return null;
}
