import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { RoomItem, RoomList } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import { kindOf } from '../kinds/index.js';
import {
  Bar,
  ButtonLink,
  Emblem,
  Empty,
  hueOfGroup,
  Muted,
  Page,
  PersonName,
  Scroll,
  Small,
  Tag,
  Waiting,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListRoomsQuery } from './roomsApi.js';
import { Things } from './Things.js';
import { counted } from '@jigsaw/core/text';

const Cards = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 8px;
  padding: 8px var(--s-4) 20px;
`;
const Card = styled.li`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 10px 12px;
  > header {
    display: flex;
    align-items: center;
    gap: 8px;
    margin-bottom: 6px;
  }
  > header h3 {
    font: var(--h-17);
    font-size: 16px;
    flex: 1;
  }
  p {
    color: var(--ink-2);
    margin-bottom: 8px;
  }
  ul {
    border-top: var(--hair);
  }
  ul li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 8px;
    padding: 6px 0 0;
  }
  ul li a {
    text-decoration: none;
  }
  ul li a:hover b {
    text-decoration: underline;
  }
  ul li b {
    font-weight: 620;
  }
  ul li small {
    grid-column: 1 / -1;
    font: var(--t-12);
    color: var(--ink-2);
  }
`;
const SetHead = styled.h2`
  padding: 14px var(--s-4) 0;
`;

const mostMembersShown = 8;

const unreadIn = (items: readonly RoomItem[]): number => items.reduce((sum, item) => sum + item.unread, 0);
function sayNews({ rooms, common }: RoomList): string {
  const unread = rooms.map((room) => unreadIn(room.items)).filter((count) => count > 0);
  const shared = unreadIn(common);
  const said = [
    unread.length > 0 &&
      `${unread.reduce((sum, count) => sum + count, 0)} unread in ${counted(unread.length, 'room')}`,
    shared > 0 && `${shared} in ${unread.length > 0 ? '' : 'the '}common copies`,
  ].filter(Boolean);
  return said.length === 0 ? 'All read' : said.join(', ');
}

const firstUnread = ({ rooms, common }: RoomList): RoomItem | undefined =>
  [...rooms.flatMap((room) => room.items), ...common].find((item) => item.unread > 0);

/** One activity in a room: where it stands, and what is new there. */
function Line({ item }: { readonly item: RoomItem }) {
  const { dates } = useCourse();
  const kind = kindOf(item.kind);
  const isMissing =
    kind?.isHandedIn &&
    item.progress.state !== 'done' &&
    item.progress.at === null &&
    item.due !== null &&
    dates.isPast(item.due);
  return (
    <li>
      <Link to={`../copies/${item.copyId}`}>
        <b>{item.title}</b>
      </Link>
      {item.unread > 0 ? (
        <Tag $look="solid">{item.unread} new</Tag>
      ) : (
        isMissing && <Tag $look="warn">Missing</Tag>
      )}
      <small>
        {kind?.sayProgress(item.progress, dates)}
        {item.isExtended && item.due && ` · has until ${dates.dateTime(item.due)}`}
      </small>
    </li>
  );
}

/** All rooms at a glance for staff: who is in them and how far their work is. */
export function RoomsPage() {
  const { course, dates } = useCourse();
  const rooms = useListRoomsQuery(course.id);
  if (unshown(rooms) !== undefined)
    return <ProblemStrip of={rooms.error} onRetry={() => void rooms.refetch()} />;
  if (!rooms.data) return <Waiting what="the rooms" rows={10} />;
  const list = rooms.data.rooms;
  const first = firstUnread(rooms.data);
  // Sets with work in them come first.
  const setNames = [
    ...new Set(
      list
        .toSorted((a, b) => Math.sign(b.items.length) - Math.sign(a.items.length))
        .map((room) => room.group.setName),
    ),
  ];
  return (
    <Page>
      <Bar>
        <h1>Rooms</h1>
        <Muted>{sayNews(rooms.data)}</Muted>
        <span className="grow" />
        {first && <ButtonLink to={`../copies/${first.copyId}`}>First unread, {first.title}</ButtonLink>}
      </Bar>
      <Scroll>
        {list.length === 0 && (
          <Empty
            title="No rooms yet"
            action={
              <ButtonLink kind="main" to="../groups">
                To the groups
              </ButtonLink>
            }
          >
            Every group has a room as soon as there is a group set.
          </Empty>
        )}
        {rooms.data.common.length > 0 && (
          <section aria-label="One copy for all">
            <SetHead>One copy for all</SetHead>
            <div style={{ padding: '8px var(--s-4) 0' }}>
              <Things label="One copy for all" items={rooms.data.common} dates={dates} />
            </div>
          </section>
        )}
        {setNames.map((name) => (
          <section key={name} aria-label={name}>
            <SetHead>{name}</SetHead>
            <Cards>
              {list
                .filter((room) => room.group.setName === name)
                .map((room) => (
                  <Card key={room.group.id} style={hueOfGroup(room.group.number)}>
                    <header>
                      <Emblem number={room.group.number} size={32} />
                      <h3>{room.group.name}</h3>
                      <Small>{counted(room.members.length, 'member')}</Small>
                    </header>
                    <p>
                      {room.members.length === 0 && 'Nobody yet'}
                      {room.members.slice(0, mostMembersShown).map((member, at) => (
                        <span key={member.enrolmentId}>
                          {at > 0 && ', '}
                          <PersonName name={member.name} />
                        </span>
                      ))}
                      {room.members.length > mostMembersShown &&
                        ` and ${room.members.length - mostMembersShown} more`}
                    </p>
                    <ul hidden={room.items.length === 0}>
                      {room.items.map((item) => (
                        <Line key={item.copyId} item={item} />
                      ))}
                    </ul>
                  </Card>
                ))}
            </Cards>
          </section>
        ))}
      </Scroll>
    </Page>
  );
}
