import { useRef, useState } from 'react';
import type { KeyboardEvent, MouseEvent } from 'react';
import { styled } from 'styled-components';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { Empty } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useAim, useLines } from '../page/index.js';
import type { AfterCell } from './AttributeCell.js';
import type { ColumnSpec } from './columns.js';
import { RosterHead } from './RosterHead.js';
import { PersonRow } from './RosterRow.js';
import { collator, useSorted } from './useSorted.js';
import type { Sort } from './useSorted.js';

const rowHeight = 28;
const boxWidth = 38;

const Sheet = styled.div`
  height: 100%;
  overflow: auto;
  background: var(--surface);
  font: var(--t-13);
  [role='row'] {
    display: grid;
    grid-template-columns: var(--columns);
    min-width: max-content;
  }
  > [role='rowgroup']:first-child {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--surface);
    border-bottom: 1px solid var(--ink);
    min-width: max-content;
  }
  > [role='rowgroup']:last-of-type {
    position: relative;
    min-width: max-content;
  }
  [role='columnheader'] {
    display: grid;
    min-width: 0;
  }
  [role='columnheader'] button {
    height: 32px;
    padding: 0 8px;
    border: 0;
    background: none;
    color: var(--ink-2);
    font: 600 11px/32px var(--font-text);
    text-align: left;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    cursor: pointer;
    outline-offset: -2px;
  }
  [data-row] {
    position: absolute;
    left: 0;
    right: 0;
    height: ${rowHeight}px;
    cursor: pointer;
    outline-offset: -2px;
  }
  /* Over what scrolls beneath them, cells are marked without being seen through. */
  [data-row]:hover > * {
    box-shadow: inset 0 40px var(--wash);
  }
  [data-row][aria-selected='true'] > * {
    box-shadow: inset 0 40px var(--wash-2);
  }
  [role='rowheader'],
  [role='gridcell'] {
    padding: 0 8px;
    line-height: ${rowHeight - 1}px;
    border-bottom: var(--hair);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  [role='rowheader'] {
    font-weight: 600;
  }
  /* Whose row it is stays in view, however far to the side someone scrolls. */
  [role='row'] > :first-child,
  &:not([data-plain]) [role='row'] > :nth-child(2) {
    position: sticky;
    left: 0;
    z-index: 1;
    background: var(--surface);
  }
  &:not([data-plain]) [role='row'] > :nth-child(2) {
    left: ${boxWidth}px;
  }
  scroll-padding-left: 260px;
  &[data-editable] [data-attribute]:hover {
    box-shadow: inset 0 -2px 0 var(--edge);
    cursor: text;
  }
  &[data-plain] [role='rowheader'],
  &[data-plain] [role='columnheader']:first-child button {
    padding-left: 16px;
  }
  .box {
    display: grid;
    place-items: center;
    width: ${boxWidth}px;
    height: 100%;
    padding: 0;
    border: 0;
    background: none;
    cursor: pointer;
    outline-offset: -4px;
  }
  .box i {
    display: grid;
    place-items: center;
    width: 15px;
    height: 15px;
    border: 1px solid var(--edge);
    border-radius: 3px;
    background: var(--surface);
    color: var(--on-ink);
  }
  .box:not([aria-checked='false']) i {
    background: var(--ink);
    border-color: var(--ink);
  }
`;

interface RosterTableProps {
  readonly entries: readonly RosterEntry[];
  /** Those of them who are shown. */
  readonly found: readonly RosterEntry[];
  readonly columns: readonly ColumnSpec[];
  /** null: no one can be selected here. */
  readonly selected: ReadonlySet<string> | null;
  readonly onSelect: (ids: ReadonlySet<string>) => void;
  readonly onOpen: (entry: RosterEntry) => void;
  /** null: no one's attributes can be changed here. */
  readonly onAttribute: ((entry: RosterEntry, name: string, value: string | null) => void) | null;
}

/** People sorted by any column, selected by box, Shift and arrow keys. Only the rows in view are drawn, so that a search over a
 * thousand people costs what its first screen costs. */
export function RosterTable({
  entries,
  found,
  columns,
  selected,
  onSelect,
  onOpen,
  onAttribute,
}: RosterTableProps) {
  const { dates } = useCourse();
  const [sort, setSort] = useState<Sort>({ column: 'name', sign: 1 });
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const [at, setAt] = useState(0);
  const anchor = useRef(0);
  const aim = useAim<number>((row) => scroller?.querySelector<HTMLElement>(`[data-row="${row}"]`)?.focus());
  const [editing, setEditing] = useState<{ readonly of: string; readonly name: string } | null>(null);
  const shown = useSorted(entries, found, columns, sort);
  const virtual = useLines({
    count: shown.length,
    linePx: rowHeight,
    scroller,
    beyond: 3,
    keyOf: (index) => sure(shown[index]).enrolmentId,
  });
  const current = Math.min(at, Math.max(0, shown.length - 1));
  const template = [
    ...(selected ? [`${boxWidth}px`] : []),
    ...columns.map((column) =>
      column.id === 'email' ? `minmax(${column.width}px, 1fr)` : `${column.width}px`,
    ),
  ];

  const toggle = (index: number, isRange: boolean) => {
    if (!selected) return;
    const next = new Set(selected);
    const [from, to] = isRange
      ? [Math.min(anchor.current, index), Math.max(anchor.current, index)]
      : [index, index];
    const isOn = isRange || !next.has(sure(shown[index]).enrolmentId);
    for (const entry of shown.slice(from, to + 1)) {
      if (isOn) next.add(entry.enrolmentId);
      else next.delete(entry.enrolmentId);
    }
    if (!isRange) anchor.current = index;
    onSelect(next);
  };
  const goTo = (index: number) => {
    const next = Math.min(Math.max(index, 0), shown.length - 1);
    setAt(next);
    virtual.scrollToIndex(next);
    aim.to(next);
    return next;
  };
  const editable = onAttribute ? columns.flatMap((column) => column.attribute ?? []) : [];
  const edit = (index: number, name: string) => {
    setAt(index);
    setEditing({ of: sure(shown[index]).enrolmentId, name });
  };
  const leaveCell = (index: number, name: string, then: AfterCell) => {
    const column =
      editable.findIndex((each) => each.name === name) + (then === 'next' ? 1 : then === 'before' ? -1 : 0);
    const next = then === 'row' || then === 'elsewhere' ? null : editable[column];
    if (next && then !== 'below') edit(index, next.name);
    else if (next && index + 1 < shown.length) {
      virtual.scrollToIndex(index + 1);
      edit(index + 1, next.name);
    } else {
      setEditing(null);
      if (then !== 'elsewhere') goTo(index);
    }
  };
  const known = (name: string) =>
    [...new Set(entries.flatMap((entry) => entry.attributes[name] ?? []))].sort(collator.compare);
  const onKey = (event: KeyboardEvent) => {
    const isBox = event.target instanceof HTMLElement && event.target.closest('button');
    const steps: Readonly<Record<string, number>> = {
      ArrowDown: 1,
      ArrowUp: -1,
      PageDown: 15,
      PageUp: -15,
      Home: -shown.length,
      End: shown.length,
    };
    const step = steps[event.key];
    if (step !== undefined) {
      const next = goTo((aim.at() ?? current) + step);
      if (event.shiftKey) toggle(next, true);
    } else if (event.key === ' ' && !isBox) toggle(current, event.shiftKey);
    else if (event.key === 'F2' && editable[0]) edit(current, editable[0].name);
    else if (event.key === 'Enter' && !isBox) onOpen(sure(shown[current]));
    else if (event.key === 'Escape' && selected && selected.size > 0) onSelect(new Set());
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey) && selected)
      onSelect(new Set(shown.map((entry) => entry.enrolmentId)));
    else return;
    event.preventDefault();
  };
  const press = (event: MouseEvent) => {
    const index = rowAt(event.target);
    if (index === null) return;
    setAt(index);
    const within = (selector: string) =>
      event.target instanceof Element ? event.target.closest(selector) : null;
    const name = within('[data-attribute]')?.getAttribute('data-attribute');
    if (within('.box')) toggle(index, event.shiftKey);
    else if (event.shiftKey || event.ctrlKey || event.metaKey) toggle(index, event.shiftKey);
    else if (selected && selected.size > 0) toggle(index, false);
    else if (name && onAttribute) edit(index, name);
    else onOpen(sure(shown[index]));
  };
  const selectedHere = selected ? shown.filter((entry) => selected.has(entry.enrolmentId)).length : 0;
  const allTicked = selectedHere === 0 ? false : selectedHere === shown.length ? true : ('mixed' as const);
  return (
    <Sheet
      ref={setScroller}
      role="grid"
      aria-label="Roster"
      aria-rowcount={shown.length + 1}
      aria-multiselectable={selected ? true : undefined}
      data-plain={selected ? undefined : true}
      data-editable={onAttribute ? true : undefined}
      style={{ '--columns': template.join(' ') }}
    >
      <RosterHead
        columns={columns}
        sort={sort}
        onSort={setSort}
        allTicked={selected ? allTicked : null}
        onTickAll={() =>
          onSelect(allTicked === true ? new Set() : new Set(shown.map((entry) => entry.enrolmentId)))
        }
      />
      {shown.length === 0 ? (
        <Empty title="No one has that name">Try a part of the name, the number or the address.</Empty>
      ) : (
        // Rows are heard here, so that those which a key of the search leaves in view need not be drawn anew.
        <div
          role="rowgroup"
          style={{ height: virtual.getTotalSize() }}
          onKeyDown={onKey}
          onFocus={(event) => aim.at() ?? setAt(rowAt(event.target) ?? current)}
          onClick={press}
        >
          {virtual.getVirtualItems().map(({ index, key, start }) => (
            <PersonRow
              key={key}
              index={index}
              top={start}
              entry={sure(shown[index])}
              columns={columns}
              dates={dates}
              isSelected={selected ? selected.has(sure(shown[index]).enrolmentId) : null}
              isCurrent={index === current}
              editor={
                editing?.of === key
                  ? {
                      name: editing.name,
                      known: known(editing.name),
                      onSave: sure(onAttribute),
                      onLeave: leaveCell,
                    }
                  : null
              }
            />
          ))}
        </div>
      )}
    </Sheet>
  );
}

/** The row in which something happened. */
function rowAt(target: EventTarget): number | null {
  const row = target instanceof Element ? target.closest('[data-row]') : null;
  return row === null ? null : Number(row.getAttribute('data-row'));
}
