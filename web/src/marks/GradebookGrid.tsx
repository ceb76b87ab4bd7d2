import { useVirtualizer } from '@tanstack/react-virtual';
import type { VirtualItem } from '@tanstack/react-virtual';
import { useMemo, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { styled } from 'styled-components';
import type { Gradebook } from '@jigsaw/contract/gradebook';
import { sure } from '@jigsaw/core/lists';
import { useCourse } from '../course/index.js';
import { after, focusOn, nameOfSpot, spotOf, useAim, useLines, usualRect } from '../page/index.js';
import type { Spot } from '../page/index.js';
import { firstMark, groupPx, Line } from './GradebookLine.js';

const rowPx = 30;
const headPx = 46;
const leastNamePx = 260;
const markPx = 150;

const Sheet = styled.div`
  height: 100%;
  overflow: auto;
  background: var(--surface);
  font: var(--t-13);
  [role='row'] {
    position: absolute;
    left: 0;
    height: ${rowPx}px;
  }
  [role='row'] > * {
    position: absolute;
    top: 0;
    height: ${rowPx}px;
    padding: 0 8px;
    line-height: ${rowPx - 1}px;
    border-bottom: var(--hair);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    outline-offset: -2px;
    background: var(--surface);
  }
  /* Whose line it is, and what the column is, stay in view. */
  [role='row'] > :first-child {
    position: sticky;
    left: 0;
    z-index: 1;
    padding-left: var(--s-4);
    font-weight: 600;
  }
  [data-head] {
    position: sticky;
    top: 0;
    z-index: 2;
    height: ${headPx}px;
  }
  [data-head] [role='row'],
  [data-head] [role='columnheader'] {
    height: ${headPx}px;
  }
  [data-head] [role='columnheader'] {
    padding-top: 6px;
    border-bottom: 1px solid var(--ink);
    font: 600 12px/15px var(--font-text);
  }
  [data-head] small {
    display: block;
    font: var(--t-11);
    color: var(--ink-2);
  }
  [data-head] b {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  [data-body] {
    position: relative;
  }
  [data-body] [role='row']:hover > * {
    background: var(--wash);
  }
  [data-figure] {
    text-align: right;
    padding-right: 20px;
  }
  [data-changed] {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  a {
    text-decoration: none;
    outline-offset: -1px;
  }
  a:hover {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  a + a {
    margin-left: 14px;
  }
  a > small {
    display: inline-block;
    max-width: 84px;
    overflow: hidden;
    text-overflow: ellipsis;
    vertical-align: bottom;
    color: var(--ink-2);
  }
`;

/** Students by activities. Only what is in view is drawn, in both directions; one cell takes the focus, and keys go from it in all directions. */
export function GradebookGrid({ activities, students }: Gradebook) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const [spot, setSpot] = useState<Spot>({ row: 0, column: 0 });
  const aim = useAim<Spot>((next) => focusOn(scroller, next));
  const widths = useMemo(() => widthsOf({ activities, students }), [activities, students]);
  const setId = useMemo(() => usualSet(activities), [activities]);
  const rows = useLines({ count: students.length, linePx: rowPx, scroller, headPx, beyond: 6 });
  const marksPx = widths.reduce((sum, width) => sum + width, 0);
  const namePx = Math.max(leastNamePx, (rows.scrollRect?.width ?? 0) - groupPx - marksPx);
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers change with scrolling, which re-renders this component by itself
  const columns = useVirtualizer({
    horizontal: true,
    count: activities.length,
    getScrollElement: () => scroller,
    estimateSize: (at) => widths[at] ?? markPx,
    paddingStart: namePx + groupPx,
    scrollPaddingStart: namePx,
    overscan: 2,
    initialRect: usualRect,
  });
  const shown = columns.getVirtualItems();
  const goTo = (next: Spot) => {
    setSpot(next);
    if (next.row >= 0) rows.scrollToIndex(next.row);
    if (next.column >= firstMark) columns.scrollToIndex(next.column - firstMark);
    aim.to(next);
  };
  const onKey = (event: KeyboardEvent) => {
    const next = after(event, aim.at() ?? spot, students.length - 1, activities.length + firstMark - 1);
    if (!next) return;
    event.preventDefault();
    goTo(next);
  };
  return (
    <Sheet
      ref={setScroller}
      role="grid"
      aria-label="Gradebook"
      aria-rowcount={students.length + 1}
      aria-colcount={activities.length + firstMark}
      onKeyDown={onKey}
      onFocus={(event) => aim.at() ?? setSpot(spotOf(event) ?? spot)}
    >
      <div role="rowgroup" data-head style={{ width: columns.getTotalSize() }}>
        <Heads
          activities={activities}
          shown={shown}
          namePx={namePx}
          current={spot.row < 0 ? spot.column : null}
        />
      </div>
      <div
        role="rowgroup"
        data-body
        style={{ width: columns.getTotalSize(), height: rows.getTotalSize() - headPx }}
      >
        {rows.getVirtualItems().map(({ index, start }) => (
          <Line
            key={sure(students[index]).enrolmentId}
            index={index}
            top={start - headPx}
            student={sure(students[index])}
            activities={activities}
            setId={setId}
            shown={shown}
            shownKey={`${namePx} ${shown.map((each) => each.key).join(' ')}`}
            namePx={namePx}
            current={index === spot.row ? spot.column : null}
          />
        ))}
      </div>
    </Sheet>
  );
}

function widthsOf({ activities, students }: Gradebook): readonly number[] {
  const most = activities.map(() => 1);
  for (const { cells } of students)
    for (const [at, own] of cells.entries()) most[at] = Math.max(most[at] ?? 1, own.length);
  return most.map((count) => count * markPx);
}

/** The set to which most was released: its groups stand beside the names. */
function usualSet(activities: Gradebook['activities']): string | undefined {
  const count = new Map<string, number>();
  for (const { setId } of activities) if (setId !== null) count.set(setId, (count.get(setId) ?? 0) + 1);
  return [...count].sort(([, a], [, b]) => b - a)[0]?.[0];
}

interface HeadsProps {
  readonly activities: Gradebook['activities'];
  readonly shown: readonly VirtualItem[];
  readonly namePx: number;
  readonly current: number | null;
}
function Heads({ activities, shown, namePx, current }: HeadsProps) {
  const { dates } = useCourse();
  const spot = (column: number) => ({
    role: 'columnheader',
    'aria-colindex': column + 1,
    'data-spot': nameOfSpot({ row: -1, column }),
    tabIndex: current === column ? 0 : -1,
  });
  return (
    <div role="row" aria-rowindex={1} style={{ width: '100%' }}>
      <div {...spot(0)} style={{ width: namePx }}>
        Name, by family name
      </div>
      <div {...spot(1)} style={{ left: namePx, width: groupPx }}>
        Group
      </div>
      {shown.map(({ index, start, size }) => {
        const activity = sure(activities[index]);
        return (
          <div
            key={activity.releaseId}
            {...spot(index + firstMark)}
            data-figure
            title={activity.title}
            style={{ left: start, width: size }}
          >
            <b>{activity.title}</b>
            <small>
              {activity.isWithdrawn && 'withdrawn, '}of {activity.points}
              {activity.due ? `, due ${dates.day(activity.due)}` : ''}
            </small>
          </div>
        );
      })}
    </div>
  );
}
