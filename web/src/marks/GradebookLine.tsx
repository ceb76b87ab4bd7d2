import type { VirtualItem } from '@tanstack/react-virtual';
import { memo } from 'react';
import { Link } from 'react-router';
import type { Gradebook, GradebookCell } from '@jigsaw/contract/gradebook';
import { sure } from '@jigsaw/core/lists';
import { useCourse } from '../course/index.js';
import { GroupChip, Muted, PersonName, Small, Spoken, Tag } from '../look/index.js';
import { nameOfSpot } from '../page/index.js';

/** Name and group stand before the marks. */
export const firstMark = 2;
export const groupPx = 150;

interface LineProps {
  readonly index: number;
  readonly top: number;
  readonly student: Gradebook['students'][number];
  readonly activities: Gradebook['activities'];
  readonly setId: string | undefined;
  readonly shown: readonly VirtualItem[];
  /** Changes whenever `shown` means something else. */
  readonly shownKey: string;
  readonly namePx: number;
  readonly current: number | null;
}
/** A student's line of the gradebook: name, group, and what there is of each activity in view. */
export const Line = memo(
  function Line({ index, top, student, activities, setId, shown, namePx, current }: LineProps) {
    const { course } = useCourse();
    const spot = (column: number) => ({
      'aria-colindex': column + 1,
      'data-spot': nameOfSpot({ row: index, column }),
    });
    const taken = (column: number) => (current === column ? 0 : -1);
    const group = student.groups.find((each) => each.setId === setId);
    return (
      <div role="row" aria-rowindex={index + 2} style={{ top, width: '100%' }}>
        <div role="rowheader" {...spot(0)} tabIndex={taken(0)} style={{ width: namePx }}>
          <PersonName name={student.name} reading={student.reading} />
        </div>
        <div role="gridcell" {...spot(1)} tabIndex={taken(1)} style={{ left: namePx, width: groupPx }}>
          {group ? <GroupChip number={group.number} name={group.name} /> : <Muted>none</Muted>}
        </div>
        {shown.map(({ index: at, start, size }) => {
          const activity = sure(activities[at]);
          const cells = student.cells[at] ?? [];
          const column = at + firstMark;
          return (
            <div
              key={activity.releaseId}
              role="gridcell"
              {...spot(column)}
              tabIndex={cells.length === 0 ? taken(column) : undefined}
              data-figure
              style={{ left: start, width: size }}
            >
              {cells.length === 0 && <Muted aria-label="not theirs">–</Muted>}
              {cells.map((cell) => (
                <Link
                  key={`${cell.copyId} ${cell.unit}`}
                  tabIndex={taken(column)}
                  to={`/c/${course.id}/marks/${activity.releaseId}/${cell.copyId}/${cell.unit}`}
                >
                  {cell.group !== null && <Small title={cell.group}>{cell.group} </Small>}
                  <Figure cell={cell} points={activity.points} />
                </Link>
              ))}
            </div>
          );
        })}
      </div>
    );
  },
  (a, b) =>
    a.index === b.index &&
    a.top === b.top &&
    a.student === b.student &&
    a.activities === b.activities &&
    a.setId === b.setId &&
    a.shownKey === b.shownKey &&
    a.current === b.current,
);

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
