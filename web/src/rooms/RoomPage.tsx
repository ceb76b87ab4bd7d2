import { Link, useParams } from 'react-router';
import { styled } from 'styled-components';
import type { RoomList, RoomView } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import { ButtonLink, Emblem, Empty, hueOfGroup, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { Body, Frame, Room } from './Room.js';
import { useListRoomsQuery, useReadRoomQuery } from './roomsApi.js';
import { owedFirst, Things } from './Things.js';

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
  padding: 6px 26px;
  border-bottom: var(--hair);
  background: var(--surface);
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
  const room = useReadRoomQuery(groupId);
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
        </Way>
      }
      who="You see this room as its members do. They are not told."
    />
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
