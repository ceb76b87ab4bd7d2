import { styled } from 'styled-components';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import type { DeskRow, DeskView } from '@jigsaw/contract/marks';
import { sayMinutes } from '@jigsaw/core/handin';
import { isProblem, ProblemStrip, unshown } from '../api/index.js';
import { kindOf } from '../kinds/index.js';
import {
  Bar,
  Choice,
  Emblem,
  Empty,
  hueOfGroup,
  Page,
  PersonName,
  Small,
  Spoken,
  Tag,
  Waiting,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { MarkSheet } from './MarkSheet.js';
import { ManyMarks } from './ManyMarks.js';
import { MarksViews } from './MarksViews.js';
import { useListDeskQuery, useReadDeskQuery, useReadMarkQuery } from './marksApi.js';
import type { MarkOf } from './marksApi.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: 212px minmax(0, 1fr);
  min-height: 0;
`;
const Queue = styled.nav`
  border-right: var(--hair);
  background: var(--surface);
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: auto;
  > header {
    padding: 10px var(--s-4) 9px;
    border-bottom: var(--hair);
    position: sticky;
    top: 0;
    background: var(--surface);
    z-index: var(--z-sticky);
  }
  > header > div:first-child {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
`;
const Tally = styled.div`
  display: flex;
  gap: 2px;
  height: 6px;
  margin-top: 8px;
  i {
    flex: 1;
    background: var(--sunk);
    border-radius: 1px;
  }
  i[data-state='released'] {
    background: var(--ink);
  }
  i[data-state='changed'] {
    background: var(--attn-line);
  }
  i[data-state='drafted'] {
    background: var(--line-2);
  }
  i[data-needs] {
    background: var(--attn);
  }
`;
const QueueRow = styled(Link)`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  flex: 0 0 50px;
  content-visibility: auto; /* hundreds of students may queue here */
  contain-intrinsic-size: auto 50px;
  padding: 0 12px 0 10px;
  border-bottom: var(--hair);
  text-decoration: none;
  outline-offset: -3px;
  &:hover {
    background: var(--wash);
  }
  &[aria-current] {
    background: var(--hue-tint);
    box-shadow: inset 3px 0 var(--hue);
  }
  b {
    font: 620 13px/16px var(--font-text);
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font: var(--t-11);
    color: var(--ink-2);
    display: block;
  }
  .mark {
    font: 650 13px/1 var(--font-text);
  }
  .mark[data-draft] {
    color: var(--ink-2);
    font-weight: 500;
  }
  .dot {
    width: 9px;
    height: 9px;
    border-radius: 2px;
    background: var(--attn);
    box-shadow: 0 0 0 1px var(--attn-line);
  }
`;

/** The queue on the left; the work and sheet of one group, or one student, on the right. */
export function DeskPage() {
  const { course, dates } = useCourse();
  const navigate = useNavigate();
  const { releaseId = '', copyId, unit } = useParams();
  const list = useListDeskQuery(course.id);
  const desk = useReadDeskQuery(releaseId);
  if (isProblem(desk.error, 'not-found'))
    return (
      <Empty title="Nothing here">There is nothing to mark at this address, or you cannot see it.</Empty>
    );
  if (unshown(desk) !== undefined)
    return <ProblemStrip of={desk.error} onRetry={() => void desk.refetch()} />;
  // The last activity's queue must never stand beside this one's sheet.
  if (!desk.currentData) return <Waiting what="the Marking desk" rows={10} />;
  const { rows } = desk.currentData;
  const mayMark = course.role === 'instructor' || course.role === 'assistant';
  const first = rows.find((row) => row.needsYou) ?? rows[0];
  if ((copyId === undefined || unit === undefined) && first)
    return <Navigate to={`${first.copyId}/${first.unit}`} replace />;
  const base = `/c/${course.id}/marks/${releaseId}`;
  return (
    <Page>
      <Bar>
        <MarksViews />
        <div style={{ minWidth: 260 }}>
          <Choice
            label="Activity"
            isLabelHidden
            value={releaseId}
            choices={(list.data?.activities ?? []).map((activity) => ({
              id: activity.releaseId,
              label: activity.title,
            }))}
            onChange={(id) => void navigate(`/c/${course.id}/marks/${id}`)}
          />
        </div>
        {desk.currentData.isWithdrawn && <Tag $look="warn">withdrawn: hidden from students</Tag>}
        <Small>
          {desk.currentData.points} points
          {desk.currentData.due ? ` · due ${dates.dateTime(desk.currentData.due)}` : ''} ·{' '}
          {desk.currentData.markFor === 'group' ? 'one mark per group' : 'one mark per student'}
        </Small>
        <span className="grow" />
        {mayMark && <ManyMarks desk={desk.currentData} />}
      </Bar>
      <Columns>
        <QueueOfUnits desk={desk.currentData} here={`${copyId}/${unit}`} base={base} />
        {copyId && unit && (
          <OneSheet
            key={`${copyId}/${unit}`}
            of={{ copyId, unit }}
            next={nextToMark(rows, `${copyId}/${unit}`)}
            base={base}
          />
        )}
      </Columns>
    </Page>
  );
}

const placeOf = (row: Pick<DeskRow, 'copyId' | 'unit'>) => `${row.copyId}/${row.unit}`;

function nextToMark(rows: readonly DeskRow[], here: string): DeskRow | null {
  const at = rows.findIndex((row) => placeOf(row) === here);
  const after = [...rows.slice(at + 1), ...rows.slice(0, at)];
  return after.find((row) => row.needsYou) ?? null;
}

function sayRow(row: DeskRow, isHandedIn: boolean): string {
  const late = row.work && row.work.lateMinutes > 0 ? `, late ${sayMinutes(row.work.lateMinutes)}` : '';
  if (row.needsYou) return row.mark.state === 'unmarked' ? `To mark${late}` : 'New work since the mark';
  if (row.mark.state === 'released') return `Released${late}`;
  if (row.mark.state === 'changed') return 'Changed since release';
  if (row.mark.state === 'drafted') return `Drafted${late}`;
  if (!row.work) return isHandedIn ? 'Not handed in' : 'Nothing written';
  return row.work.isComplete ? `Handed in${late}` : 'In progress';
}

function QueueOfUnits({
  desk,
  here,
  base,
}: {
  readonly desk: DeskView;
  readonly here: string;
  readonly base: string;
}) {
  const toMark = desk.rows.filter((row) => row.needsYou).length;
  const isHandedIn = kindOf(desk.kind)?.isHandedIn ?? false;
  const what = desk.markFor === 'group' ? 'groups' : 'students';
  return (
    <Queue aria-label={desk.markFor === 'group' ? 'Groups to mark' : 'Students to mark'}>
      <header>
        <div>
          <h2>
            {desk.rows.length} {what}
          </h2>
          {toMark > 0 ? <Tag $look="needs">{toMark} to mark</Tag> : <Tag $look="plain">none to mark</Tag>}
        </div>
        <Tally aria-hidden="true">
          {desk.rows.slice(0, 60).map((row) => (
            <i key={placeOf(row)} data-state={row.mark.state} data-needs={row.needsYou || undefined} />
          ))}
        </Tally>
      </header>
      {desk.rows.map((row) => (
        <QueueRow
          key={placeOf(row)}
          to={`${base}/${placeOf(row)}`}
          aria-current={placeOf(row) === here ? 'page' : undefined}
          style={row.group ? hueOfGroup(row.group.number) : undefined}
        >
          {row.group ? (
            <Emblem number={row.group.number} size={30} look={row.work ? 'solid' : 'line'} />
          ) : (
            <span />
          )}
          <span style={{ minWidth: 0 }}>
            <b>{row.student ? <PersonName name={row.student.name} /> : row.group?.name}</b>
            <small>{sayRow(row, isHandedIn)}</small>
          </span>
          {row.needsYou ? (
            <span className="dot">
              <Spoken>needs you</Spoken>
            </span>
          ) : (
            <span
              className="mark"
              data-draft={row.mark.state === 'drafted' || row.mark.state === 'changed' || undefined}
            >
              {row.mark.groupMark ?? ''}
            </span>
          )}
        </QueueRow>
      ))}
    </Queue>
  );
}

function OneSheet({
  of,
  next,
  base,
}: {
  readonly of: MarkOf;
  readonly next: DeskRow | null;
  readonly base: string;
}) {
  const mark = useReadMarkQuery(of, { refetchOnMountOrArgChange: true });
  if (isProblem(mark.error, 'not-found'))
    return <Empty title="Nothing here">This work is not here, or you cannot see it.</Empty>;
  if (unshown(mark) !== undefined)
    return <ProblemStrip of={mark.error} onRetry={() => void mark.refetch()} />;
  return mark.currentData ? (
    <MarkSheet mark={mark.currentData} next={next} base={base} reload={() => mark.refetch().unwrap()} />
  ) : (
    <Waiting what="the work" rows={8} />
  );
}
