import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import {
  Cell,
  Column,
  Row,
  Table,
  TableBody,
  TableHeader,
  TableLayout,
  Virtualizer,
} from 'react-aria-components';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { Gradebook, GradebookCell } from '@jigsaw/contract/marks';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import {
  Bar,
  Choice,
  Empty,
  GroupChip,
  Muted,
  Page,
  PersonName,
  Small,
  Spoken,
  Tag,
  Waiting,
  FootBar,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useReadGradebookQuery } from './marksApi.js';
import { MarksViews } from './MarksViews.js';

const Frame = styled(Page)`
  grid-template-rows: auto minmax(0, 1fr) 32px;
`;
const Sheet = styled(Table)`
  display: block;
  height: 100%;
  overflow: auto;
  background: var(--surface);
  font: var(--t-13);
  [role='columnheader'] {
    height: 46px;
    padding: 6px 8px;
    border-bottom: 1px solid var(--ink);
    background: var(--surface);
    outline-offset: -2px;
    font: 600 12px/15px var(--font-text);
    overflow: hidden;
  }
  [role='columnheader'] small {
    display: block;
    font: var(--t-11);
    color: var(--ink-2);
  }
  [role='columnheader'] b {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  [role='rowheader'],
  [role='gridcell'] {
    height: 30px;
    padding: 0 8px;
    line-height: 29px;
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
const Export = styled.a`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: var(--ctl);
  padding: 0 11px;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  font: 550 13px/1 var(--font-text);
  text-decoration: none;
  white-space: nowrap;
  &:hover {
    background: var(--sunk);
  }
`;

const everyone = 'everyone';

export function GradebookPage() {
  const { course } = useCourse();
  const book = useReadGradebookQuery(course.id);
  const [group, setGroup] = useState(everyone);
  const groups = useMemo(() => groupsIn(book.data), [book.data]);
  if (unshown(book) !== undefined)
    return <ProblemStrip of={book.error} onRetry={() => void book.refetch()} />;
  if (!book.data) return <Waiting what="the gradebook" rows={12} />;
  const { activities, students } = book.data;
  const shown =
    group === everyone
      ? students
      : students.filter((student) => student.groups.some((each) => each.groupId === group));
  const released = students
    .flatMap((student) => student.cells.flat())
    .filter((cell) => cell.state === 'released' || cell.state === 'excused').length;
  return (
    <Frame>
      <Bar>
        <MarksViews />
        <div style={{ minWidth: 190 }}>
          <Choice
            label="Show"
            isLabelHidden
            value={group}
            choices={[{ id: everyone, label: `All ${students.length} students` }, ...groups]}
            onChange={setGroup}
          />
        </div>
        <span className="grow" />
        <Muted>{counted(released, 'mark')} released</Muted>
        <Export href={`/api/courses/${course.id}/gradebook.csv`} download="gradebook.csv">
          <Download size={16} aria-hidden="true" />
          Released marks as CSV
        </Export>
      </Bar>
      {activities.length === 0 ? (
        <Empty title="Nothing to mark yet">
          Each assignment that is released becomes a column here, named by its title as it is now.
        </Empty>
      ) : (
        <GradebookTable book={{ activities, students: shown }} key={group} />
      )}
      <FootBar>
        <span>{counted(shown.length, 'student')}</span>
        <span>Grey: draft, hidden from students. Dot: late. Dotted underline: changed since release.</span>
      </FootBar>
    </Frame>
  );
}

/** The groups to filter by, set by set. */
function groupsIn(book: Gradebook | undefined): { id: string; label: string }[] {
  const found = new Map<string, { label: string; order: string }>();
  for (const student of book?.students ?? []) {
    for (const group of student.groups)
      found.set(group.groupId, {
        label: group.name,
        order: `${group.setId} ${String(group.number).padStart(4, '0')}`,
      });
  }
  return [...found]
    .sort(([, a], [, b]) => a.order.localeCompare(b.order))
    .map(([id, { label }]) => ({ id, label }));
}

/** The set to which most was released: its groups stand beside the names. */
function usualSet({ activities }: Gradebook): string | undefined {
  const count = (setId: string) => activities.filter((activity) => activity.setId === setId).length;
  return activities.flatMap((activity) => activity.setId ?? []).toSorted((a, b) => count(b) - count(a))[0];
}

function GradebookTable({ book }: { readonly book: Gradebook }) {
  const { course, dates } = useCourse();
  const setId = usualSet(book);
  const columns = [
    { id: 'name', at: -1, width: 0 },
    { id: 'groups', at: -1, width: 150 },
    ...book.activities.map((activity, at) => ({
      id: activity.releaseId,
      at,
      width: 150 * Math.max(1, ...book.students.map(({ cells }) => cells[at]?.length ?? 0)),
    })),
  ];
  return (
    <Virtualizer layout={TableLayout} layoutOptions={{ rowHeight: 30, headingHeight: 46 }}>
      <Sheet aria-label="Gradebook">
        <TableHeader columns={columns}>
          {({ id, at, width }) => {
            const activity = book.activities[at];
            return (
              <Column
                id={id}
                isRowHeader={id === 'name'}
                width={id === 'name' ? '1fr' : width}
                minWidth={id === 'name' ? 260 : 120}
                style={id === 'name' ? { paddingLeft: 16 } : undefined}
                {...(activity ? { 'data-figure': true } : {})}
              >
                {activity ? (
                  <>
                    <b>{activity.title}</b>
                    <small>
                      {activity.isWithdrawn && 'withdrawn, '}of {activity.points}
                      {activity.due ? `, due ${dates.day(activity.due)}` : ''}
                    </small>
                  </>
                ) : id === 'name' ? (
                  'Name, by family name'
                ) : (
                  'Group'
                )}
              </Column>
            );
          }}
        </TableHeader>
        <TableBody items={book.students}>
          {(student) => (
            <Row id={student.enrolmentId} columns={columns}>
              {({ id, at }) => {
                const cells = student.cells[at];
                if (id === 'name') {
                  return (
                    <Cell>
                      <PersonName name={student.name} reading={student.reading} />
                    </Cell>
                  );
                }
                const group = student.groups.find((each) => each.setId === setId);
                if (!cells)
                  return (
                    <Cell>
                      {group ? <GroupChip number={group.number} name={group.name} /> : <Muted>none</Muted>}
                    </Cell>
                  );
                return (
                  <Cell data-figure>
                    {cells.length === 0 && <Muted aria-label="not theirs">–</Muted>}
                    {cells.map((cell) => (
                      <Link
                        key={`${cell.copyId} ${cell.unit}`}
                        to={`/c/${course.id}/marks/${id}/${cell.copyId}/${cell.unit}`}
                      >
                        {cell.group !== null && <Small title={cell.group}>{cell.group} </Small>}
                        <Figure cell={cell} points={book.activities[at]?.points} />
                      </Link>
                    ))}
                  </Cell>
                );
              }}
            </Row>
          )}
        </TableBody>
      </Sheet>
    </Virtualizer>
  );
}

function Figure({ cell, points }: { readonly cell: GradebookCell; readonly points: string | undefined }) {
  const late = cell.isLate && (
    <>
      {' '}
      <span aria-hidden="true">•</span>
      <Spoken>late</Spoken>
    </>
  );
  switch (cell.state) {
    case 'released':
      return (
        <b data-changed={cell.isChanged || undefined}>
          {cell.mark}
          {cell.points !== points && <Small> of {cell.points}</Small>}
          {cell.isChanged && <Spoken> changed since release</Spoken>}
          {late}
        </b>
      );
    case 'drafted':
      return (
        <Muted>
          {cell.mark ?? 'excused'}
          <Spoken> draft</Spoken>
          {late}
        </Muted>
      );
    case 'excused':
      return <Small>excused</Small>;
    case 'to-mark':
      return <Tag $look="needs">to mark</Tag>;
    case 'missing':
      return <Tag $look="warn">missing</Tag>;
    case 'open':
      return <Small>not yet</Small>;
  }
}
