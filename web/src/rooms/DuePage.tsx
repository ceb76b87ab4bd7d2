import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { SignUpList } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { kindOf, sayTimes } from '../kinds/index.js';
import { useListSignUpsQuery } from '../placing/index.js';
import type { Dates } from '../look/index.js';
import { ButtonLink, Empty, GroupChip, hueOfGroup, Tag, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useNow } from '../page/index.js';
import { useListRoomsQuery } from './roomsApi.js';
import { StudentPage } from './StudentPage.js';

const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 12px;
`;
const Line = styled(Link)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 16px;
  align-items: center;
  padding: 14px 18px;
  margin-bottom: 8px;
  background: var(--surface);
  border: var(--hair);
  border-left: 4px solid var(--hue, var(--ink));
  border-radius: var(--r-2);
  text-decoration: none;
  &:hover {
    background: var(--wash);
  }
  b {
    font: var(--h-17);
  }
  small {
    font: var(--t-13);
    color: var(--ink-2);
  }
  .when {
    text-align: right;
    font: 600 13px/18px var(--font-text);
  }
  @media (max-width: 700px) {
    grid-template-columns: 1fr;
    .when {
      text-align: left;
    }
  }
`;

function sayChoosing({ state, opens, closes }: SignUpList['signUps'][number], dates: Dates): string {
  if (state === 'not-open-yet') return `From ${dates.dateTime(sure(opens))}`;
  if (state === 'open') return closes ? `Until ${dates.dateTime(closes)}` : 'Open';
  return state === 'frozen' ? 'Fixed' : 'Choosing is over';
}

/** What this student's groups owe, and by when. */
export function DuePage() {
  const { course, dates } = useCourse();
  const rooms = useListRoomsQuery(course.id);
  const signUps = useListSignUpsQuery(course.id);
  const now = useNow(
    ...[...(rooms.data?.rooms ?? []).flatMap((room) => room.items), ...(rooms.data?.common ?? [])].flatMap(
      (item) => [item.due, item.happens?.ends ?? null],
    ),
  );
  if (unshown(rooms) !== undefined)
    return <ProblemStrip of={rooms.error} onRetry={() => void rooms.refetch()} />;
  if (!rooms.data) return <Waiting what="what is due" />;
  const items = [
    ...rooms.data.rooms.flatMap((room) => room.items.map((item) => ({ item, group: room.group }))),
    ...rooms.data.common.map((item) => ({ item, group: null })),
  ].sort((a, b) => (a.item.due ?? '9').localeCompare(b.item.due ?? '9'));
  const owed = items.filter(({ item }) => item.progress.owes);
  // What has no date and asks for nothing is not due; it is in the room.
  const rest = items.filter(
    ({ item }) =>
      !item.progress.owes && item.happens === null && (item.due !== null || item.progress.state === 'done'),
  );
  const comingUp = items
    .filter(({ item }) => item.happens !== null && Date.parse(item.happens.ends) > now)
    .sort((a, b) => (a.item.happens?.starts ?? '').localeCompare(b.item.happens?.starts ?? ''));
  const list = (entries: typeof items) =>
    entries.map(({ item, group }) => {
      const isOverdue = item.due !== null && item.progress.owes && Date.parse(item.due) < now;
      const kind = kindOf(item.kind);
      return (
        <Line
          key={item.copyId}
          to={`../copies/${item.copyId}`}
          style={group ? hueOfGroup(group.number) : undefined}
        >
          <b>{item.title}</b>
          <span className="when">
            {item.happens ? (
              <>
                {item.happens.isCancelled && <Tag $look="needs">Cancelled</Tag>}{' '}
                {sayTimes(item.happens.starts, item.happens.ends, dates)}
              </>
            ) : item.due ? (
              <>
                {isOverdue && <Tag $look="needs">Late</Tag>}{' '}
                {item.isExtended && <Tag $look="warn">extended</Tag>} Due {dates.dateTime(item.due)}
              </>
            ) : (
              'No due date'
            )}
          </span>
          <small>
            {group ? <GroupChip number={group.number} name={group.name} /> : 'For all'} · {kind?.word}
            {kind?.sayProgress && ` · ${kind.sayProgress(item.progress, dates)}`}
          </small>
          <small className="when" style={{ fontWeight: 400 }}>
            {item.happens
              ? item.happens.place
              : item.due && item.progress.owes
                ? dates.fromNow(item.due, now)
                : item.points === null
                  ? ''
                  : `${item.points} points`}
          </small>
        </Line>
      );
    });
  const choices = signUps.data?.signUps ?? [];
  const choiceLine = (each: (typeof choices)[number]) => (
    <Line
      key={each.setId}
      to={`../choose/${each.setId}`}
      style={each.yours ? hueOfGroup(each.yours.number) : undefined}
    >
      <b>
        {each.yours ? `${each.name}: you are in ${each.yours.name}` : `Choose your group in ${each.name}`}
      </b>
      <span className="when">
        {each.state === 'open' && !each.yours && <Tag $look="needs">To choose</Tag>}{' '}
        {sayChoosing(each, dates)}
      </span>
      <small>
        {each.yours ? (
          <GroupChip number={each.yours.number} name={each.yours.name} />
        ) : (
          'You have no place yet'
        )}
      </small>
    </Line>
  );
  return (
    <StudentPage>
      <Head>
        <h1>Due</h1>
        <ButtonLink to="../outline">Outline</ButtonLink>
      </Head>
      {choices.filter((each) => !each.yours).map(choiceLine)}
      {items.length === 0 && choices.length === 0 && (
        <Empty title={rooms.data.rooms.length === 0 ? 'You are in no group yet' : 'Nothing is due'}>
          {rooms.data.rooms.length === 0
            ? 'Your instructor places you in a group. Its work then appears here.'
            : 'What is released to your group appears here.'}
        </Empty>
      )}
      {items.some(({ item }) => kindOf(item.kind)?.isWork !== false) && owed.length === 0 && (
        <p>Nothing is due. You have done everything.</p>
      )}
      {list(owed)}
      {choices.filter((each) => each.yours).map(choiceLine)}
      {comingUp.length > 0 && <h2>Coming up</h2>}
      {list(comingUp)}
      {rest.length > 0 && <h2>Done or closed</h2>}
      {list(rest)}
    </StudentPage>
  );
}
