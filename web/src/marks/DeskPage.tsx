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
import { WriteButton } from '../messages/index.js';
import { MarkSheet } from './MarkSheet.js';
import { ManyMarks } from './ManyMarks.js';
import { MarksViews } from './MarksViews.js';
import { useListDeskQuery, useReadDeskQuery, useReadMarkQuery } from './marksApi.js';
import type { MarkOf } from './marksApi.js';
import { placeOf, useQueue } from './useQueue.js';
import type { Next, Queue } from './useQueue.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: 212px minmax(0, 1fr);
  min-height: 0;
`;
const QueueFrame = styled.nav`
  header > button {
    margin-top: 8px;
  }
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
  > .none {
    padding: 12px var(--s-4);
  }
  > header > div:first-child {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    justify-content: space-between;
    align-items: center;
  }
`;
const Narrow = styled.div`
  display: grid;
  margin-top: 8px;
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
  const { releaseId = '', copyId, unit } = useParams();
  const desk = useReadDeskQuery(releaseId);
  if (isProblem(desk.error, 'not-found'))
    return (
      <Empty title="Nothing here">There is nothing to mark at this address, or you cannot see it.</Empty>
    );
  if (unshown(desk) !== undefined)
    return <ProblemStrip of={desk.error} onRetry={() => void desk.refetch()} />;
  // The last activity's queue must never stand beside this one's sheet.
  if (!desk.currentData) return <Waiting what="the Marking desk" rows={10} />;
  return <Desk key={releaseId} desk={desk.currentData} here={copyId && unit ? { copyId, unit } : null} />;
}

function Desk({ desk, here }: { readonly desk: DeskView; readonly here: MarkOf | null }) {
  const { course, dates } = useCourse();
  const navigate = useNavigate();
  const list = useListDeskQuery(course.id);
  const { releaseId, rows } = desk;
  const place = here === null ? '' : `${here.copyId}/${here.unit}`;
  const queue = useQueue(course.id, rows, place);
  const { shown, search } = queue;
  const mayMark = course.role === 'instructor' || course.role === 'assistant';
  const toRow = (row: DeskRow) => `/c/${course.id}/marks/${releaseId}/${placeOf(row)}${search}`;
  const first = shown.find((row) => row.needsYou) ?? shown[0] ?? rows[0];
  if (here === null && first && !queue.isAsking) return <Navigate to={toRow(first)} replace />;
  const next = nextToMark(shown, place);
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
            onChange={(id) => void navigate(`/c/${course.id}/marks/${id}${search}`)}
          />
        </div>
        {desk.isWithdrawn && <Tag $look="warn">withdrawn: hidden from students</Tag>}
        <Small>
          {desk.points} points
          {desk.due ? ` · due ${dates.dateTime(desk.due)}` : ''} ·{' '}
          {desk.markFor === 'group' ? 'one mark per group' : 'one mark per student'}
        </Small>
        <span className="grow" />
        {mayMark && <ManyMarks desk={{ ...desk, rows: [...shown] }} isNarrowed={queue.isNarrowed} />}
      </Bar>
      <Columns>
        <QueueOfUnits desk={desk} queue={queue} here={place} toRow={toRow} />
        {here && <OneSheet key={place} of={here} next={next && { row: next, to: toRow(next) }} />}
      </Columns>
    </Page>
  );
}

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
  queue,
  here,
  toRow,
}: {
  readonly desk: DeskView;
  readonly queue: Queue;
  readonly here: string;
  readonly toRow: (row: DeskRow) => string;
}) {
  const { shown } = queue;
  const toMark = shown.filter((row) => row.needsYou).length;
  const isHandedIn = kindOf(desk.kind)?.isHandedIn ?? false;
  const what = desk.markFor === 'group' ? 'groups' : 'students';
  return (
    <QueueFrame aria-label={desk.markFor === 'group' ? 'Groups to mark' : 'Students to mark'}>
      <header>
        <div>
          <h2>
            {queue.isNarrowed ? `${shown.length} of ${desk.rows.length}` : desk.rows.length} {what}
          </h2>
          {toMark > 0 ? <Tag $look="needs">{toMark} to mark</Tag> : <Tag $look="plain">none to mark</Tag>}
        </div>
        <Tally aria-hidden="true">
          {shown.slice(0, 60).map((row) => (
            <i key={placeOf(row)} data-state={row.mark.state} data-needs={row.needsYou || undefined} />
          ))}
        </Tally>
        <Narrow>
          <Choice
            label="Show"
            isLabelHidden
            value={queue.chosen}
            choices={queue.choices}
            onChange={queue.choose}
          />
        </Narrow>
        <WriteToRows rows={shown} />
        {queue.error !== undefined && <ProblemStrip of={queue.error} />}
      </header>
      {queue.isAsking && <Waiting what="the people of this audience" rows={4} />}
      {shown.length === 0 && !queue.isAsking && <Small className="none">Nothing here is like that.</Small>}
      {shown.map((row) => (
        <QueueRow
          key={placeOf(row)}
          to={toRow(row)}
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
    </QueueFrame>
  );
}

/** To those in the queue, as it is narrowed. */
function WriteToRows({ rows }: { readonly rows: readonly DeskRow[] }) {
  const people = rows.flatMap(({ unit, student }) =>
    student && unit !== 'group' ? [{ enrolmentId: unit, name: student.name }] : [],
  );
  const groups = rows.flatMap(({ group }) => group ?? []);
  const label = `Write to these ${people.length || groups.length}…`;
  return people.length > 0 ? (
    <WriteButton label={label} people={people} />
  ) : (
    <WriteButton label={label} groups={groups} />
  );
}

function OneSheet({ of, next }: { readonly of: MarkOf; readonly next: Next | null }) {
  const mark = useReadMarkQuery(of, { refetchOnMountOrArgChange: true });
  if (isProblem(mark.error, 'not-found'))
    return <Empty title="Nothing here">This work is not here, or you cannot see it.</Empty>;
  if (unshown(mark) !== undefined)
    return <ProblemStrip of={mark.error} onRetry={() => void mark.refetch()} />;
  return mark.currentData ? (
    <MarkSheet mark={mark.currentData} next={next} reload={() => mark.refetch().unwrap()} />
  ) : (
    <Waiting what="the work" rows={8} />
  );
}
