import { Flag, Lock } from 'lucide-react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { RoomView } from '@jigsaw/contract/rooms';
import { may } from '@jigsaw/core/course';
import { Emblem, Empty, hueOfGroup, PersonName, Split } from '../look/index.js';
import { SitInLink, useCourse } from '../course/index.js';
import { WriteButton } from '../messages/index.js';
import { PractiseButton } from '../practice/index.js';
import { Shelf } from '../shelf/index.js';
import { NamingButton } from './NamingButton.js';
import { owedFirst, Things } from './Things.js';

export const Frame = styled.main`
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  min-height: 0;
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
  @media (max-width: 700px) {
    p {
      flex-wrap: wrap;
    }
    p > span {
      flex: 1 1 calc(100% - 24px);
    }
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
  @media (max-width: 900px) {
    grid-template-columns: auto 1fr;
    ul {
      grid-column: 1 / -1;
    }
  }
  @media (max-width: 700px) {
    padding: 10px 16px 12px;
    gap: 12px;
    h1 {
      font: var(--h-32);
    }
    ul {
      grid-template-columns: 1fr;
    }
  }
`;
const Halves = styled(Split)`
  @media (max-width: 900px) {
    overflow: auto;
  }
`;
export const Body = styled.div`
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

/** A group's room: whose it is, who is in it, and what was released to it.
 * @param way leads to other rooms.
 * @param who sees it, in words.
 * @param aside stands beside what is in it.
 * @param first stands above what is in it. */
export function Room({
  room,
  way,
  who,
  aside,
  first,
  children,
}: {
  readonly room: RoomView;
  readonly way: ReactNode;
  readonly who: string;
  readonly aside?: ReactNode;
  readonly first?: ReactNode;
  readonly children?: ReactNode;
}) {
  const { course, dates } = useCourse();
  return (
    <Frame style={hueOfGroup(room.group.number)}>
      {way}
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
            <span>
              {room.group.setName}, group {room.group.number}. {who}
            </span>
            <WriteButton
              label={
                may(course.role, 'read-course') ? `Write to ${room.group.name}…` : 'Write to your group…'
              }
              groups={[room.group]}
            />
            <PractiseButton groupId={room.group.id} name={room.group.name} />
          </p>
        </div>
        <ul aria-label="Members">
          {room.members.slice(0, mostMembersShown).map((member) => (
            <li key={member.enrolmentId}>
              <PersonName name={member.name} reading={member.reading} /> {member.isYou && <small>you</small>}{' '}
              {member.isLeader && <Flag size={13} fill="currentColor" aria-label="leads the group" />}{' '}
              <SitInLink enrolmentId={member.enrolmentId} name={member.name} to={`/room/${room.group.id}`} />
            </li>
          ))}
          {room.members.length > mostMembersShown && (
            <li>and {room.members.length - mostMembersShown} more</li>
          )}
        </ul>
      </Sill>
      <Beside aside={aside}>
        {first}
        {room.about && <p className="about">{room.about}</p>}
        <h2>In this room</h2>
        {room.items.length === 0 ? (
          <Empty title="Nothing released yet">What the group is given to do appears here.</Empty>
        ) : (
          <Things label="In this room" items={room.items.toSorted(owedFirst)} dates={dates} />
        )}
        {children}
        <Shelf groupId={room.group.id} />
      </Beside>
    </Frame>
  );
}

function Beside({ aside, children }: { readonly aside: ReactNode; readonly children: ReactNode }) {
  if (aside === undefined) return <Body>{children}</Body>;
  return (
    <Halves $aside="372px">
      <Body>{children}</Body>
      {aside}
    </Halves>
  );
}
