import { KeyRound, Upload } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { SortDescriptor } from 'react-aria-components';
import { Cell, Column, Row, Table, TableBody, TableHeader, TableLayout, Virtualizer } from 'react-aria-components';
import { styled } from 'styled-components';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import { sortName } from '@jigsaw/core/roster';
import { fold } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Bar, Button, ButtonLink, Empty, FindField, GroupChip, Muted, Page, PersonName, Tag, Waiting } from '../look/index.js';
import { useCourse } from '../track/index.js';
import { useReadRosterQuery } from './rosterApi.js';
import { SignInLinksDialog } from './SignInLinksDialog.js';

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
    padding-left: var(--s-4);
  }
  [role='row'][data-hovered] > * {
    background: var(--wash);
  }
  [role='row'] {
    outline-offset: -2px;
  }
`;
const Foot = styled.footer`
  display: flex;
  align-items: center;
  gap: 18px;
  height: 32px;
  padding: 0 var(--s-4);
  border-top: var(--hair);
  background: var(--paper);
  font: var(--t-12);
  color: var(--ink-2);
`;
const Frame = styled(Page)`
  grid-template-rows: auto minmax(0, 1fr) auto;
`;

const roleWords = { instructor: 'Instructor', assistant: 'Assistant', student: 'Student', observer: 'Observer' } as const;
const mostAttributeColumns = 3;

export function RosterPage() {
  const { course } = useCourse();
  const roster = useReadRosterQuery(course.id);
  const [sought, setSought] = useState('');
  const [isHandingOut, setHandingOut] = useState(false);
  const mayManage = course.role === 'instructor';
  if (roster.error) return <ProblemStrip of={roster.error} onRetry={() => void roster.refetch()} />;
  if (!roster.data) return <Waiting what="the roster" rows={14} />;
  const here = roster.data.entries.filter((entry) => entry.leftAt === null);
  const students = here.filter((entry) => entry.role === 'student');
  return (
    <Frame>
      <Bar>
        <h1>Roster</h1>
        <FindPeople value={sought} onChange={setSought} />
        <Muted>
          {students.length} {students.length === 1 ? 'student' : 'students'}, {here.length - students.length} staff
        </Muted>
        <span className="grow" />
        {mayManage && (
          <>
            <Button kind="quiet" onPress={() => setHandingOut(true)}>
              <KeyRound size={16} aria-hidden="true" />
              Sign-in links…
            </Button>
            <ButtonLink kind={students.length === 0 ? 'main' : 'plain'} to="bring-in">
              <Upload size={16} aria-hidden="true" />
              Bring people in
            </ButtonLink>
          </>
        )}
      </Bar>
      {students.length === 0 ? (
        <Empty
          title="No students yet"
          action={
            mayManage ? (
              <ButtonLink kind="main" to="bring-in">
                Bring in a class file
              </ButtonLink>
            ) : undefined
          }
        >
          Bring in the class as a CSV file or paste a list of addresses. You see what will change before anything does.
        </Empty>
      ) : (
        <RosterTable roster={{ ...roster.data, entries: here }} sought={sought} />
      )}
      {isHandingOut && <SignInLinksDialog courseId={course.id} onClose={() => setHandingOut(false)} />}
    </Frame>
  );
}

function FindPeople({ value, onChange }: { readonly value: string; readonly onChange: (value: string) => void }) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const focus = (event: KeyboardEvent) => {
      const isTyping = event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable]');
      if (event.key !== '/' || isTyping) return;
      event.preventDefault();
      input.current?.focus();
    };
    window.addEventListener('keydown', focus);
    return () => window.removeEventListener('keydown', focus);
  }, []);
  return <FindField label="Find people" placeholder="Find a name, number or address" value={value} onChange={onChange} inputRef={input} width={300} />;
}

interface ColumnSpec {
  readonly id: string;
  readonly heading: string;
  readonly width: number;
  readonly sortBy: (entry: RosterEntry) => string;
}

function columnsOf(roster: RosterView): ColumnSpec[] {
  const attributes = [...new Set(roster.entries.flatMap((entry) => Object.keys(entry.attributes)))].slice(0, mostAttributeColumns);
  return [
    { id: 'name', heading: 'Name, by family name', width: 270, sortBy: (entry) => sortName(entry) },
    { id: 'number', heading: 'Number', width: 88, sortBy: (entry) => entry.number ?? '' },
    { id: 'role', heading: 'Role', width: 92, sortBy: (entry) => entry.role },
    ...roster.sets.map((set) => ({
      id: `set:${set.id}`,
      heading: set.name,
      width: 150,
      sortBy: (entry: RosterEntry) => String(entry.groups.find((group) => group.setId === set.id)?.number ?? 9999).padStart(5, '0'),
    })),
    ...attributes.map((name) => ({ id: `attribute:${name}`, heading: name, width: 120, sortBy: (entry: RosterEntry) => entry.attributes[name] ?? '' })),
    { id: 'email', heading: 'Address', width: 250, sortBy: (entry) => entry.email },
    { id: 'seen', heading: 'Last in', width: 130, sortBy: (entry) => entry.lastSeenAt ?? '' },
  ];
}

const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true });

function RosterTable({ roster, sought }: { readonly roster: RosterView; readonly sought: string }) {
  const { dates } = useCourse();
  const [sort, setSort] = useState<SortDescriptor>({ column: 'name', direction: 'ascending' });
  const columns = useMemo(() => columnsOf(roster), [roster]);
  const searchable = useMemo(
    () => roster.entries.map((entry) => ({ entry, text: fold([entry.name, entry.reading, entry.number, entry.email].filter(Boolean).join(' ')) })),
    [roster],
  );
  const shown = useMemo(() => {
    const words = fold(sought).split(/\s+/).filter(Boolean);
    const found = searchable.filter(({ text }) => words.every((word) => text.includes(word))).map(({ entry }) => entry);
    const column = columns.find((each) => each.id === sort.column) ?? columns[0]!;
    const sign = sort.direction === 'descending' ? -1 : 1;
    return found.toSorted((a, b) => sign * collator.compare(column.sortBy(a), column.sortBy(b)));
  }, [searchable, sought, columns, sort]);

  const cell = (entry: RosterEntry, column: ColumnSpec) => {
    if (column.id === 'name') return <PersonName name={entry.name} reading={entry.reading} />;
    if (column.id === 'number') return <Muted>{entry.number}</Muted>;
    if (column.id === 'role') return <Muted>{roleWords[entry.role]}</Muted>;
    if (column.id === 'email') return <Muted>{entry.email}</Muted>;
    if (column.id === 'seen') return <Muted>{entry.lastSeenAt ? dates.dateTime(entry.lastSeenAt) : 'never'}</Muted>;
    if (column.id.startsWith('attribute:')) return entry.attributes[column.heading] ?? '';
    const group = entry.groups.find((each) => `set:${each.setId}` === column.id);
    if (group) return <GroupChip number={group.number} name={group.name} />;
    return entry.role === 'student' ? <Tag $look="needs">Unplaced</Tag> : null;
  };
  return (
    <>
      <Virtualizer layout={TableLayout} layoutOptions={{ rowHeight: 28, headingHeight: 32 }}>
        <Sheet aria-label="Roster" sortDescriptor={sort} onSortChange={setSort}>
          <TableHeader columns={columns} dependencies={[sort]}>
            {(column) => (
              <Column
                id={column.id}
                isRowHeader={column.id === 'name'}
                allowsSorting
                style={column.id === 'name' ? { paddingLeft: 16 } : undefined}
                width={column.id === 'email' ? '1fr' : column.width}
                minWidth={column.width}
              >
                {column.heading}
                {sort.column === column.id ? (sort.direction === 'ascending' ? ' ↑' : ' ↓') : ''}
              </Column>
            )}
          </TableHeader>
          <TableBody
            items={shown}
            dependencies={[columns]}
            renderEmptyState={() => <Empty title="Nobody by that name">Try a part of the name, the number or the address.</Empty>}
          >
            {(entry) => (
              <Row id={entry.enrolmentId} columns={columns}>
                {(column) => <Cell>{cell(entry, column)}</Cell>}
              </Row>
            )}
          </TableBody>
        </Sheet>
      </Virtualizer>
      <Foot>
        <span>{shown.length === roster.entries.length ? `${shown.length} people` : `${shown.length} of ${roster.entries.length} people`}</span>
      </Foot>
    </>
  );
}
