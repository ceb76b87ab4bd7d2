import { Flag, Lock } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { styled } from 'styled-components';
import type { RoomList, RoomView } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import { Emblem, Empty, hueOfGroup, PersonName, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { NamingButton } from './NamingButton.js';
import { useListRoomsQuery } from './roomsApi.js';
import { owedFirst, Things } from './Things.js';

const Frame = styled.main`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
`;
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
const Sill = styled.header`
  background: var(--hue-tint);
  border-bottom: 1px solid var(--ink);
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 18px;
  align-items: center;
  padding: 14px 32px 14px 26px;
  h1 {
    font: var(--h-44);
    letter-spacing: -0.03em;
    overflow-wrap: anywhere;
  }
  p {
    font: var(--t-13);
    color: var(--hue-ink);
    display: flex;
    gap: 6px;
    align-items: center;
    margin-top: 2px;
  }
  p svg {
    flex-shrink: 0;
  }
  h1 button {
    margin-left: 8px;
    vertical-align: middle;
  }
  p.motto {
    font: 600 15px/20px var(--font-text);
    color: var(--ink);
  }
  ul {
    display: grid;
    grid-template-columns: auto auto;
    gap: 5px 26px;
    font: var(--t-13);
  }
  li {
    font-weight: 600;
  }
  li small {
    font-weight: 400;
    color: var(--ink-2);
  }
  @media (max-width: 700px) {
    grid-template-columns: auto 1fr;
    padding: 10px 16px 12px;
    gap: 12px;
    h1 {
      font: var(--h-32);
    }
    ul {
      grid-column: 1 / -1;
      grid-template-columns: 1fr;
    }
  }
`;
const Body = styled.div`
  overflow: auto;
  padding: 20px 32px;
  h2 {
    margin-bottom: 12px;
  }
  > ul {
    max-width: 1280px;
  }
  .about {
    max-width: 72ch;
    margin-bottom: 16px;
    color: var(--ink-2);
  }
  > ul + h2 {
    margin-top: 24px;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`;
const mostMembersShown = 8;

/** A group's room as its members see it: who is in it, and what was released to it. */
export function RoomPage() {
  const { course, dates } = useCourse();
  const { groupId } = useParams();
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
      <Empty title="Nothing here">There is no room at this address, or it is not yours to see.</Empty>
    );
  }
  return (
    <Frame style={hueOfGroup(room.group.number)}>
      {rooms.data.rooms.length > 1 ? (
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
      )}
      <Sill>
        <Emblem number={room.group.number} size={76} />
        <div>
          <h1>
            {room.group.name}
            {room.namingVersion !== null && <NamingButton room={room} version={room.namingVersion} />}
          </h1>
          {room.motto && <p className="motto">{room.motto}</p>}
          <p>
            <Lock size={14} aria-hidden="true" />
            {room.group.setName}, group {room.group.number}. Only the {room.members.length} of you and the
            staff can see this room.
          </p>
        </div>
        <ul aria-label="Members">
          {room.members.slice(0, mostMembersShown).map((member) => (
            <li key={member.enrolmentId}>
              <PersonName name={member.name} reading={member.reading} /> {member.isYou && <small>you</small>}{' '}
              {member.isLeader && <Flag size={13} fill="currentColor" aria-label="leads the group" />}
            </li>
          ))}
          {room.members.length > mostMembersShown && (
            <li>and {room.members.length - mostMembersShown} more</li>
          )}
        </ul>
      </Sill>
      <Body>
        {room.about && <p className="about">{room.about}</p>}
        <h2>In this room</h2>
        {room.items.length === 0 ? (
          <Empty title="Nothing released yet">What your group is given to do appears here.</Empty>
        ) : (
          <Things label="In this room" items={room.items.toSorted(owedFirst)} dates={dates} />
        )}
        <Shared rooms={rooms.data} />
      </Body>
    </Frame>
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
