import { useVirtualizer } from '@tanstack/react-virtual';
import { UserX } from 'lucide-react';
import { useState } from 'react';
import type { KeyboardEvent } from 'react';
import { sure } from '@jigsaw/core/lists';
import { Emblem } from '../look/index.js';
import { after, focusOn, spotOf, useAim, useLines, usualRect } from '../page/index.js';
import type { Spot } from '../page/index.js';
import { stateWords } from '../release/index.js';
import type { SightLine } from './lines.js';
import { headPx, leastPx, namePx, rowPx, Sheet } from './sightGridLook.js';
import type { SightColumn, SightSpot } from './SightRow.js';
import { SightRow } from './SightRow.js';

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
  const shownKey = shown.map(({ key }) => key).join();
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
          const isChosen = chosen?.activityId === activity.activityId;
          return (
            <SightRow
              key={activity.activityId}
              index={index}
              top={place.top}
              activity={activity}
              cells={cells}
              columns={groups}
              shown={shown}
              shownKey={shownKey}
              current={spot.row === index ? spot.column : null}
              chosen={isChosen ? groups.findIndex(({ groupId }) => groupId === chosen.groupId) : null}
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
