import { Check, Minus } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Selection, SortDescriptor } from 'react-aria-components';
import { Cell, Checkbox, Column, Row, Table, TableBody, TableHeader, TableLayout, Virtualizer } from 'react-aria-components';
import { styled } from 'styled-components';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { Empty, GroupChip, Muted, PersonName, Tag } from '../look/index.js';
import type { Dates } from '../look/index.js';
import { useCourse } from '../track/index.js';
import type { ColumnSpec } from './columns.js';
import { roleWords } from './columns.js';

const Sheet = styled(Table)`
  display: block;
  height: 100%;
  overflow: auto;
  background: var(--surface);
  font: var(--t-13);
  [role='columnheader'] {
    height: 32px;
    padding: 0 8px;
    font: 600 11px/32px var(--font-text);
    color: var(--ink-2);
    border-bottom: 1px solid var(--ink);
    background: var(--surface);
    text-align: left;
    cursor: default;
    outline-offset: -2px;
  }
  [role='columnheader'][data-allows-sorting] {
    cursor: pointer;
  }
  [role='rowheader'],
  [role='gridcell'] {
    height: 28px;
    padding: 0 8px;
    line-height: 27px;
    border-bottom: var(--hair);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    outline-offset: -2px;
  }
  [role='rowheader'] {
    font-weight: 600;
  }
  [role='row'][data-hovered] > * {
    background: var(--wash);
  }
  [role='row'][aria-selected='true'] > * {
    background: var(--wash-2);
  }
  [role='row'] {
    outline-offset: -2px;
  }
`;
const Box = styled(Checkbox)`
  display: grid;
  place-items: center;
  width: 27px;
  height: 27px;
  margin-left: 6px;
  i {
    display: grid;
    place-items: center;
    width: 15px;
    height: 15px;
    border: 1px solid var(--edge);
    border-radius: 3px;
    background: var(--surface);
    color: var(--on-ink);
  }
  &[data-selected] i,
  &[data-indeterminate] i {
    background: var(--ink);
    border-color: var(--ink);
  }
`;

const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true });
const boxColumn = 'box';

interface RosterTableProps {
  readonly entries: readonly RosterEntry[];
  readonly columns: readonly ColumnSpec[];
  /** null: nobody can be selected here. */
  readonly selected: ReadonlySet<string> | null;
  readonly onSelect: (ids: ReadonlySet<string>) => void;
  readonly onOpen: (entry: RosterEntry) => void;
}

/** People sorted by any column, selected by box, Shift and arrow keys. */
export function RosterTable({ entries, columns, selected, onSelect, onOpen }: RosterTableProps) {
  const { dates } = useCourse();
  const [sort, setSort] = useState<SortDescriptor>({ column: 'name', direction: 'ascending' });
  const shown = useMemo(() => {
    const column = columns.find((each) => each.id === sort.column) ?? columns[0]!;
    const sign = sort.direction === 'descending' ? -1 : 1;
    return entries.toSorted((a, b) => sign * collator.compare(column.sortBy(a), column.sortBy(b)));
  }, [entries, columns, sort]);
  const all = useMemo(() => [...(selected ? [{ id: boxColumn, heading: '', width: 38 }] : []), ...columns], [columns, selected]);

  const cell = (entry: RosterEntry, id: string, heading: string) => {
    if (id === 'name') return <PersonName name={entry.name} reading={entry.reading} />;
    if (id === 'number') return <Muted>{entry.number}</Muted>;
    if (id === 'role') return <Muted>{entry.leftAt ? `left ${dates.day(entry.leftAt)}` : roleWords[entry.role]}</Muted>;
    if (id === 'email') return <Muted>{entry.email}</Muted>;
    if (id === 'seen') return <Muted>{sayLastIn(entry, dates)}</Muted>;
    if (id.startsWith('attribute:')) return entry.attributes[heading] ?? '';
    const group = entry.groups.find((each) => `set:${each.setId}` === id);
    if (group) return <GroupChip number={group.number} name={group.name} />;
    return entry.role === 'student' && entry.leftAt === null ? <Tag $look="needs">Unplaced</Tag> : null;
  };
  const select = (keys: Selection) => onSelect(keys === 'all' ? new Set(shown.map((entry) => entry.enrolmentId)) : new Set([...keys].map(String)));
  return (
    <Virtualizer layout={TableLayout} layoutOptions={{ rowHeight: 28, headingHeight: 32 }}>
      <Sheet
        aria-label="Roster"
        sortDescriptor={sort}
        onSortChange={setSort}
        selectionMode={selected ? 'multiple' : 'none'}
        selectedKeys={selected ?? []}
        onSelectionChange={select}
        onRowAction={(key) => {
          const entry = entries.find((each) => each.enrolmentId === key);
          if (entry) onOpen(entry);
        }}
      >
        <TableHeader columns={all} dependencies={[sort, all]}>
          {(column) =>
            column.id === boxColumn ? (
              <Column id={boxColumn} width={38} minWidth={38} style={{ padding: 0 }}>
                <Tick label="Select all" />
              </Column>
            ) : (
              <Column
                id={column.id}
                isRowHeader={column.id === 'name'}
                allowsSorting
                width={column.id === 'email' ? '1fr' : column.width}
                minWidth={column.width}
                style={column.id === 'name' && !selected ? { paddingLeft: 16 } : undefined}
              >
                {column.heading}
                {sort.column === column.id ? (sort.direction === 'ascending' ? ' ↑' : ' ↓') : ''}
              </Column>
            )
          }
        </TableHeader>
        <TableBody
          items={shown}
          dependencies={[all]}
          renderEmptyState={() => <Empty title="Nobody by that name">Try a part of the name, the number or the address.</Empty>}
        >
          {(entry) => (
            <Row id={entry.enrolmentId} columns={all} textValue={entry.name}>
              {(column) =>
                column.id === boxColumn ? (
                  <Cell style={{ padding: 0 }}>
                    <Tick label={`Select ${entry.name}`} />
                  </Cell>
                ) : (
                  <Cell style={column.id === 'name' && !selected ? { paddingLeft: 16 } : undefined}>{cell(entry, column.id, column.heading)}</Cell>
                )
              }
            </Row>
          )}
        </TableBody>
      </Sheet>
    </Virtualizer>
  );
}

/** When they were last in; before that, whether they were asked in. */
function sayLastIn({ lastSeenAt, hasComeIn, invitedAt }: RosterEntry, dates: Dates): string {
  if (lastSeenAt) return dates.dateTime(lastSeenAt);
  if (hasComeIn) return 'never';
  return invitedAt ? `invited ${dates.day(invitedAt)}` : 'not invited';
}

const Tick = ({ label }: { readonly label: string }) => (
  <Box slot="selection" aria-label={label}>
    {({ isSelected, isIndeterminate }) => (
      <i>{isIndeterminate ? <Minus size={12} strokeWidth={3} aria-hidden="true" /> : isSelected && <Check size={12} strokeWidth={3} aria-hidden="true" />}</i>
    )}
  </Box>
);
