import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { Emblem, hueOfGroup, Spoken, Tag } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { useNow } from '../page/index.js';
import { Terms } from './Terms.js';

const Frame = styled.main`
  display: grid;
  grid-template-rows: auto auto auto minmax(0, 1fr);
  min-height: 0;
`;
const Sill = styled.header`
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 64px;
  padding: 6px 32px 6px 26px;
  background: var(--hue-tint, var(--surface));
  border-bottom: 1px solid var(--ink);
  h1 {
    font: var(--h-22);
    font-size: 24px;
    overflow-wrap: anywhere;
  }
  a {
    font: 600 13px/16px var(--font-text);
    color: var(--hue-ink, var(--ink));
  }
  > div.name {
    flex: 1;
    min-width: 0;
  }
  > div.when {
    text-align: right;
    font: var(--t-13);
    color: var(--hue-ink, var(--ink-2));
    max-width: 46%;
  }
  > div.when b {
    display: block;
    color: var(--ink);
  }
  > div.when .reason {
    display: block;
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    flex-wrap: wrap;
    padding: 10px 16px;
    gap: 10px;
    > div.when {
      text-align: left;
      width: 100%;
      max-width: none;
    }
  }
`;
const Switcher = styled.nav`
  display: flex;
  gap: 2px;
  padding: 0 18px;
  border-bottom: var(--hair);
  background: var(--surface);
  overflow-x: auto;
  > span {
    align-self: center;
    font: var(--t-12);
    color: var(--ink-2);
    padding: 0 10px 0 8px;
    white-space: nowrap;
  }
  a {
    display: grid;
    justify-items: center;
    gap: 1px;
    min-width: 46px;
    padding: 5px 8px 3px;
    text-decoration: none;
    border-bottom: 2px solid transparent;
    outline-offset: -3px;
  }
  a:hover {
    background: var(--wash);
  }
  a[aria-current] {
    background: var(--hue-tint);
    border-bottom-color: var(--ink);
  }
  small {
    font: 600 11px/14px var(--font-text);
    color: var(--ink-3);
  }
  small[data-unread] {
    color: var(--ink);
  }
`;

/** The sill of every activity: whose copy it is, what it is, until when; and the other groups' copies that one may look into. */
export function CopyFrame({
  head,
  note,
  children,
}: {
  readonly head: CopyHead;
  readonly note?: string;
  readonly children: ReactNode;
}) {
  const { course, dates } = useCourse();
  const { group, schedule, extension } = head;
  const now = useNow(schedule.due);
  const isStaff = course.role !== 'student';
  const room = group ? `../room/${group.id}` : isStaff ? '../rooms' : '../room';
  return (
    <Frame style={group ? hueOfGroup(group.number) : undefined}>
      <Sill>
        {group && <Emblem number={group.number} size={44} />}
        <div className="name">
          <Link to={room}>{group ? group.name : isStaff ? 'All rooms' : 'Your room'}</Link>
          <h1>{head.title}</h1>
        </div>
        <div className="when">
          <b>
            {schedule.due
              ? `Due ${dates.dateTime(schedule.due)}, ${dates.fromNow(schedule.due, now)}`
              : kindOf(head.kind)?.isWork !== false && 'No due date'}{' '}
            {extension && <Tag $look="warn">{extension.isOwn ? 'extended for you' : 'extended'}</Tag>}
          </b>
          {note ?? whoSees(head)}
          {extension && (
            <span className="reason">
              Reason: <bdi>{extension.reason}</bdi>
            </span>
          )}
        </div>
      </Sill>
      <Terms head={head} />
      {head.others.length > 0 ? <OtherCopies head={head} /> : <span />}
      {children}
    </Frame>
  );
}

function whoSees({ mode, group, part, members }: CopyHead): string {
  if (!group) return `One copy for all ${members.length}.`;
  if (part === 'reader') return `${group.name}’s copy. You read along.`;
  if (mode === 'read-along') return `${group.name}’s own copy. The other groups read along.`;
  return `${group.name}’s own copy. No other group sees it.`;
}

function OtherCopies({ head }: { readonly head: CopyHead }) {
  const own = head.group
    ? [{ copyId: head.id, group: head.group, unread: head.unread, state: 'in-work' as const }]
    : [];
  const copies = [...own, ...head.others].sort((a, b) => a.group.number - b.group.number);
  const unread = copies.reduce((sum, copy) => sum + copy.unread, 0);
  return (
    <Switcher aria-label="The groups’ copies">
      <span>{unread > 0 ? `${unread} unread` : 'All read'}</span>
      {copies.map((copy) => (
        <Link
          key={copy.copyId}
          to={`../copies/${copy.copyId}`}
          aria-current={copy.copyId === head.id ? 'page' : undefined}
          style={hueOfGroup(copy.group.number)}
        >
          <Emblem
            number={copy.group.number}
            size={30}
            look={copy.state === 'not-started' ? 'line' : 'solid'}
          />
          <Spoken>{copy.group.name}, </Spoken>
          <small data-unread={copy.unread > 0 || undefined}>
            {copy.unread > 0 ? copy.unread : '–'}
            <Spoken> unread</Spoken>
          </small>
        </Link>
      ))}
    </Switcher>
  );
}
