import { ChevronLeft, ChevronRight, Layers } from 'lucide-react';
import { Link, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { ActivityView, CollisionView } from '@jigsaw/contract/release';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import { dayAt } from '@jigsaw/core/release';
import { counted, namesTogether } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Bar, Button, ButtonLink, Muted, Page, Scroll, Small, Tag, Waiting } from '../look/index.js';
import { useNow } from '../page/index.js';
import { stateOf } from './activityList.js';
import { KindIcon } from './KindIcon.js';
import { useListActivitiesQuery, useListCollisionsQuery } from './releaseApi.js';
import { sayTo } from './sayTo.js';
import { daysLater, entriesByDay, isDay, mondayOf } from './week.js';
import type { Day, Entry } from './week.js';

const Days = styled.ol`
  display: grid;
  grid-template-columns: repeat(5, minmax(150px, 1fr)) repeat(2, minmax(130px, 0.8fr));
  min-height: 100%;
  > li {
    display: flow-root;
    border-right: var(--hair);
    min-width: 0;
    background: var(--surface);
    &[data-weekend] {
      background: var(--paper);
    }
  }
  h2 {
    position: sticky;
    top: 0;
    display: flex;
    align-items: baseline;
    gap: 6px;
    height: 40px;
    padding: 0 12px;
    font: var(--h-14);
    line-height: 40px;
    background: inherit;
    border-bottom: var(--hair);
  }
  /* In a small or enlarged window one day stands below the other. */
  @media (max-width: 1000px) {
    display: block;
    min-height: 0;
    > li {
      border-right: 0;
    }
    h2 {
      background: var(--sunk);
    }
  }
`;
/** As wide for every week, so that the buttons beside it stay under the hand. */
const Range = styled(Muted)`
  min-width: 172px;
`;
const Card = styled.div<{ to?: string }>`
  display: grid;
  gap: 2px;
  margin: 8px;
  padding: 8px 10px;
  border: 1px solid var(--line);
  border-radius: var(--r-2);
  background: var(--surface);
  text-decoration: none;
  overflow-wrap: break-word;
  &:is(a):hover {
    border-color: var(--edge);
    background: var(--wash);
  }
  &[data-draft] {
    border-style: dashed;
    border-color: var(--edge);
  }
  &[data-lesser] {
    border-color: transparent;
    background: none;
  }
  > span:first-child {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 6px;
    font: var(--t-12);
  }
  b {
    font: var(--h-14);
    line-height: 18px;
  }
  [data-cancelled] {
    text-decoration: line-through;
  }
`;
const Together = styled.p`
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr);
  gap: 6px;
  margin: 8px;
  padding: 8px 10px;
  font: var(--t-12);
  color: var(--attn-ink);
  background: var(--attn-tint);
  border-left: 3px solid var(--attn);
  overflow-wrap: break-word;
`;

const whats = {
  'goes-live': 'goes live',
  opens: 'opens',
  due: 'due',
  closes: 'closes',
  happens: '',
} as const satisfies Record<Entry['what'], string>;

/** A week of the course: what goes live, opens, falls due, closes and takes place, for which groups, and where too much falls on one day. */
export function WeekPage() {
  const { course } = useCourse();
  const list = useListActivitiesQuery(course.id);
  const mayRelease = course.role === 'instructor';
  const collisions = useListCollisionsQuery(course.id, { skip: !mayRelease });
  const [search, setSearch] = useSearchParams();
  const today = dayAt(useNow(null), course.timeZone);
  const asked = search.get('from');
  const monday = mondayOf(isDay(asked) ? asked : today);
  const show = (day: Day) => setSearch(mondayOf(day) === mondayOf(today) ? {} : { from: mondayOf(day) });

  if (unshown(list) !== undefined)
    return <ProblemStrip of={list.error} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Waiting what="the week" />;
  const byDay = entriesByDay(list.data.activities, course.timeZone);
  const togetherByDay = groupedBy(collisions.data?.collisions ?? [], ({ day }) => day);
  const titleOf = keyedBy(list.data.activities, ({ id }) => id);
  const days = Array.from({ length: 7 }, (_, at) => daysLater(monday, at));
  const isEmpty = days.every((day) => !byDay.has(day));
  const next = [...byDay.keys()].sort().find((day) => day > daysLater(monday, 6));
  return (
    <Page>
      <Bar>
        <h1>Week</h1>
        <Range aria-live="polite">{sayWeek(monday)}</Range>
        <Button kind="quiet" aria-label="The week before" onPress={() => show(daysLater(monday, -7))}>
          <ChevronLeft size={18} aria-hidden="true" />
        </Button>
        <Button isDisabled={monday === mondayOf(today)} onPress={() => show(today)}>
          This week
        </Button>
        <Button kind="quiet" aria-label="The week after" onPress={() => show(daysLater(monday, 7))}>
          <ChevronRight size={18} aria-hidden="true" />
        </Button>
        {isEmpty && (
          <Small>
            Nothing falls in this week.{' '}
            {next && (
              <Button isSmall onPress={() => show(next)}>
                Go to {sayDayWithYear(next)}
              </Button>
            )}
          </Small>
        )}
        <span className="grow" />
        <ButtonLink to={`/c/${course.id}/release`}>List</ButtonLink>
      </Bar>
      {unshown(collisions) !== undefined && (
        <ProblemStrip of={collisions.error} onRetry={() => void collisions.refetch()} />
      )}
      <Scroll tabIndex={0} role="region" aria-label="Days">
        <Days>
          {days.map((day, at) => (
            <li key={day} data-weekend={at > 4 || undefined}>
              <h2>
                {sayDay(day)}
                {day === today && <Tag $look="solid">Today</Tag>}
              </h2>
              {togetherByDay.get(day)?.map((each) => (
                <Together key={each.activityIds.join()}>
                  <Layers size={16} aria-hidden="true" />
                  {sayCollision(each, (id) => titleOf.get(id)?.title ?? 'an activity')}
                </Together>
              ))}
              {byDay.get(day)?.map((entry) => (
                <EntryCard
                  key={`${entry.activity.id} ${entry.what} ${entry.at} ${entry.whose}`}
                  entry={entry}
                  mayOpen={mayRelease}
                />
              ))}
            </li>
          ))}
        </Days>
      </Scroll>
    </Page>
  );
}

function EntryCard({ entry, mayOpen }: { readonly entry: Entry; readonly mayOpen: boolean }) {
  const { course, dates } = useCourse();
  const { activity, what, whose, happens } = entry;
  const isDraft = stateOf(activity) === 'draft';
  const until = happens ? `–${dates.time(happens.ends)}` : '';
  return (
    <Card
      data-draft={isDraft || undefined}
      data-lesser={what === 'due' || what === 'happens' ? undefined : ''}
      {...(mayOpen ? { as: Link, to: `/c/${course.id}/release/${activity.id}` } : {})}
    >
      <span>
        <KindIcon kind={activity.kind} size={15} />
        {dates.time(entry.at)}
        {until} {whats[what]}
        {isDraft && <Tag $look="dash">Draft</Tag>}
        {happens?.isCancelled && <Tag>Cancelled</Tag>}
      </span>
      <b data-cancelled={happens?.isCancelled || undefined}>{activity.title}</b>
      <Small>
        {happens?.place && `${happens.place} · `}
        {whose !== null ? `only for ${whose}` : activity.release ? sayTo(activity.release) : 'to no one yet'}
      </Small>
    </Card>
  );
}

/** Fits in a column, and says it all. */
function sayCollision(
  { activityIds, students, names }: CollisionView,
  titleOf: (id: ActivityView['id']) => string,
): string {
  const who = names.length > 0 ? namesTogether(names) : counted(students, 'student');
  const has = students === 1 ? 'has' : 'have';
  return `${who} ${has} ${activityIds.length} things due: ${namesTogether(activityIds.map((id) => `“${titleOf(id)}”`))}.`;
}

// Days of the calendar, not moments: they are the same in every zone.
const calendar = (options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options });
const dayName = calendar({ weekday: 'short', day: 'numeric', month: 'short' });
const dayWithYear = calendar({ day: 'numeric', month: 'short', year: 'numeric' });
const dayOnly = calendar({ day: 'numeric', month: 'short' });
const sayDay = (day: Day): string => dayName.format(new Date(day)).replace(',', '');
const sayDayWithYear = (day: Day): string => dayWithYear.format(new Date(day));
const sayWeek = (monday: Day): string =>
  `${dayOnly.format(new Date(monday))} – ${sayDayWithYear(daysLater(monday, 6))}`;
