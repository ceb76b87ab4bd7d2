import { Link, useNavigate, useParams } from 'react-router';
import { styled } from 'styled-components';
import type { Lately, RoomList, RoomView } from '@jigsaw/contract/rooms';
import type { GroupTag } from '@jigsaw/contract/sets';
import { may } from '@jigsaw/core/course';
import { ProblemStrip, unshown } from '../api/index.js';
import {
  Button,
  ButtonLink,
  Emblem,
  Empty,
  hueOfGroup,
  Key,
  PersonName,
  Small,
  Waiting,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { Notes } from '../notes/index.js';
import { useKey } from '../page/index.js';
import { Body, Frame, Room } from './Room.js';
import { useListRoomsQuery, useReadLatelyQuery, useReadRoomQuery } from './roomsApi.js';
import { NextDue } from './NextDue.js';
import { SinceLast } from './SinceLast.js';
import { owedFirst, Things } from './Things.js';
import { Trace } from './Trace.js';

const Rooms = styled.nav`
  display: flex;
  gap: 4px;
  padding: 6px 26px;
  border-bottom: var(--hair);
  background: var(--surface);
  overflow-x: auto;
  a {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 4px 12px 4px 6px;
    border-radius: var(--r-2);
    text-decoration: none;
    white-space: nowrap;
  }
  a[aria-current] {
    background: var(--hue-tint);
    font-weight: 650;
  }
  small {
    color: var(--ink-2);
    font: var(--t-12);
  }
`;
const Way = styled.nav`
  display: flex;
  gap: 8px;
  padding: 6px 26px;
  border-bottom: var(--hair);
  background: var(--surface);
`;

const ForStaff = styled.aside`
  overflow: auto;
  display: grid;
  gap: 24px;
  align-content: start;
  padding: 20px 20px 32px;
  background: var(--sunk);
  border-left: 1px solid var(--ink);
  table {
    width: 100%;
    font: var(--t-13);
    margin-top: 6px;
  }
  td,
  th {
    padding: 5px 0;
    text-align: left;
    font-weight: inherit;
    border-bottom: var(--hair);
    overflow-wrap: anywhere;
  }
  th {
    font: 600 13px/18px var(--font-text);
    color: var(--ink);
  }
  td:last-child {
    width: 118px;
  }
  small {
    display: block;
    font: var(--t-12);
    color: var(--ink-2);
  }
`;

/** A group's room: for its members, and for staff who look into it. */
export function RoomPage() {
  const { course } = useCourse();
  const { groupId } = useParams();
  return course.role === 'student' || groupId === undefined ? (
    <OwnRoom groupId={groupId} />
  ) : (
    <RoomForStaff groupId={groupId} />
  );
}

function RoomForStaff({ groupId }: { readonly groupId: string }) {
  const { course } = useCourse();
  const room = useReadRoomQuery(groupId);
  const lately = useReadLatelyQuery(groupId);
  if (unshown(room) !== undefined)
    return <ProblemStrip of={room.error} onRetry={() => void room.refetch()} />;
  if (!room.currentData) return <Waiting what="the room" />;
  return (
    <Room
      room={room.currentData}
      way={
        <Way aria-label="Rooms">
          <ButtonLink kind="quiet" to="../rooms">
            All rooms
          </ButtonLink>
          {lately.currentData && <Neighbours {...lately.currentData} />}
        </Way>
      }
      aside={
        <ForStaff aria-label="For staff">
          {lately.error !== undefined && <ProblemStrip of={lately.error} />}
          {lately.currentData && <MembersLately members={lately.currentData.members} />}
          {may(course.role, 'keep-notes') && (
            <Notes key={groupId} groupId={groupId} members={room.currentData.members} />
          )}
        </ForStaff>
      }
      who="You see this room as its members do. They are not told."
    />
  );
}

/** The rooms beside it, each a key away. */
function Neighbours({ previous, next }: Lately) {
  const navigate = useNavigate();
  const go = (group: GroupTag | null) => group && void navigate(`../room/${group.id}`);
  useKey('p', () => go(previous));
  useKey('n', () => go(next));
  return (
    <>
      <Button kind="quiet" isDisabled={previous === null} onPress={() => go(previous)}>
        {previous ? `Previous: ${previous.name}` : 'First room'} <Key>P</Key>
      </Button>
      <Button kind="quiet" isDisabled={next === null} onPress={() => go(next)}>
        {next ? `Next: ${next.name}` : 'Last room'} <Key>N</Key>
      </Button>
    </>
  );
}

/** What each member wrote lately. */
function MembersLately({ members }: Pick<Lately, 'members'>) {
  const { dates } = useCourse();
  return (
    <section>
      <h2>Lately</h2>
      {members.length === 0 ? (
        <Small>No one is in this group.</Small>
      ) : (
        <table aria-label="Lately">
          <tbody>
            {members.map(({ enrolmentId, name, reading, last, days }) => (
              <tr key={enrolmentId}>
                <th scope="row">
                  <PersonName name={name} reading={reading} />
                  <small>
                    {last ? (
                      <>
                        {dates.fromNow(last.at)} in <Link to={`../copies/${last.copyId}`}>{last.title}</Link>
                      </>
                    ) : (
                      'Nothing written yet'
                    )}
                  </small>
                </th>
                <td>
                  <Trace days={days} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function OwnRoom({ groupId }: { readonly groupId: string | undefined }) {
  const { course } = useCourse();
  const rooms = useListRoomsQuery(course.id);
  if (unshown(rooms) !== undefined)
    return <ProblemStrip of={rooms.error} onRetry={() => void rooms.refetch()} />;
  if (!rooms.data) return <Waiting what="your room" />;
  const room =
    rooms.data.rooms.find((each) => each.group.id === groupId) ??
    (groupId === undefined ? busiest(rooms.data.rooms) : undefined);
  if (!room) {
    return groupId === undefined ? (
      <Frame>
        <span />
        <span />
        <Body>
          <Empty title="You are in no group yet">
            Your instructor places you in one. Your group’s room then opens here.
          </Empty>
          <Shared rooms={rooms.data} />
        </Body>
      </Frame>
    ) : (
      <Empty title="Nothing here">There is no room at this address, or you cannot see it.</Empty>
    );
  }
  const way =
    rooms.data.rooms.length > 1 ? (
      <Rooms aria-label="Your groups">
        {rooms.data.rooms.map((each) => (
          <Link
            key={each.group.id}
            to={`../room/${each.group.id}`}
            aria-current={each === room ? 'page' : undefined}
            style={hueOfGroup(each.group.number)}
          >
            <Emblem number={each.group.number} size={26} />
            {each.group.name} <small>{each.group.setName}</small>
          </Link>
        ))}
      </Rooms>
    ) : (
      <span />
    );
  return (
    <Room
      room={room}
      way={way}
      who={`Only the ${room.members.length} of you and the staff can see this room.`}
      aside={<SinceLast key={room.group.id} groupId={room.group.id} />}
      first={<NextDue items={[...room.items, ...rooms.data.common]} />}
    >
      <Shared rooms={rooms.data} />
    </Room>
  );
}

/** What several groups, or the class, have in one copy; and what one may only know of. */
function Shared({ rooms: { common, locked } }: { readonly rooms: RoomList }) {
  const { dates } = useCourse();
  if (common.length + locked.length === 0) return null;
  return (
    <>
      <h2>{common.length > 0 ? 'Shared with others' : 'Not open to you'}</h2>
      <Things label="Shared with others" items={common.toSorted(owedFirst)} locked={locked} dates={dates} />
    </>
  );
}

/** Without a choice, the room in which something waits opens. */
const busiest = (rooms: readonly RoomView[]) => rooms.toSorted((a, b) => b.items.length - a.items.length)[0];
