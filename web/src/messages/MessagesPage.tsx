import { useState } from 'react';
import { Link, Outlet, useMatch, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { MessageList, SendingLine, ThreadLine } from '@jigsaw/contract/messages';
import { may } from '@jigsaw/core/course';
import { counted, fold } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import {
  Bar,
  Button,
  Empty,
  FindField,
  Muted,
  Page,
  Segments,
  Small,
  Spoken,
  Tag,
  Waiting,
} from '../look/index.js';
import { useListMessagesQuery } from './messagesApi.js';
import { WithName } from './WithName.js';
import { WriteSheet } from './WriteSheet.js';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(280px, 400px) minmax(0, 1fr);
  min-height: 0;
  @media (max-width: 700px) {
    display: block;
    /* One after the other: the list, or what was opened from it. */
    &[data-open] > nav {
      display: none;
    }
    &:not([data-open]) > nav ~ * {
      display: none;
    }
  }
`;
const List = styled.nav`
  overflow: auto;
  min-height: 0;
  background: var(--surface);
  border-right: 1px solid var(--ink);
  @media (max-width: 700px) {
    border-right: 0;
  }
  li {
    border-bottom: var(--hair);
  }
  a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 1px 10px;
    align-items: center;
    min-height: 44px;
    padding: 9px var(--s-4);
    text-decoration: none;
    outline-offset: -3px;
  }
  a:hover {
    background: var(--wash);
  }
  a[aria-current] {
    background: var(--wash-2);
    box-shadow: inset 4px 0 0 var(--ink);
  }
  b {
    font: 600 14px/20px var(--font-text);
  }
  b,
  .subject,
  .excerpt {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  a > :nth-child(2n) {
    justify-self: end;
  }
  .excerpt {
    font: var(--t-13);
    color: var(--ink-2);
  }
  a[data-unread] .subject {
    font-weight: 650;
  }
  > footer {
    padding: 10px var(--s-4);
  }
`;

const atFirst = 100;

/** What people of the course wrote to one another, and what is open of it beside the list. */
export function MessagesPage() {
  const { course } = useCourse();
  const [most, setMost] = useState(atFirst);
  const messages = useListMessagesQuery({ courseId: course.id, most });
  if (unshown(messages) !== undefined)
    return <ProblemStrip of={messages.error} onRetry={() => void messages.refetch()} />;
  if (!messages.data) return <Waiting what="the messages" rows={8} />;
  return <Shown messages={messages.data} onMore={() => setMost(most * 4)} />;
}

type Show = 'all' | 'awaiting' | 'sent';

interface ShownProps {
  readonly messages: MessageList;
  readonly onMore: () => void;
}
function Shown({ messages, onMore }: ShownProps) {
  const { threads, sendings, hasMore } = messages;
  const { course } = useCourse();
  const navigate = useNavigate();
  const base = `/c/${course.id}/messages`;
  const [sought, setSought] = useState('');
  const [isWriting, setWriting] = useState(false);
  const sendingId = useMatch(`${base}/sent/:id`)?.params.id;
  const threadId = useMatch(`${base}/:id`)?.params.id;
  const [show, setShow] = useState<Show>(sendingId === undefined ? 'all' : 'sent');
  const isStaff = may(course.role, 'write-to-people');
  const mayWrite = isStaff || course.role === 'student';
  const words = fold(sought).split(/\s+/).filter(Boolean);
  const has = (text: string) => words.every((word) => fold(text).includes(word));
  const found = threads.filter(
    (line) =>
      (show === 'all' || line.awaitsReply) && has(`${nameOf(line)} ${line.subject} ${line.last.excerpt}`),
  );
  const unread = threads.filter((line) => line.unread > 0).length;
  const awaiting = threads.filter((line) => line.awaitsReply).length;
  return (
    <Page>
      <Bar>
        <h1>Messages</h1>
        <Muted>{unread > 0 ? `${unread} new` : 'All read'}</Muted>
        {isStaff && (
          <Segments
            label="Which messages"
            value={show}
            onChange={setShow}
            choices={[
              { id: 'all', label: 'All' },
              { id: 'awaiting', label: `Awaiting a reply ${awaiting}` },
              { id: 'sent', label: `Sent to many ${sendings.length}` },
            ]}
          />
        )}
        <span className="grow" />
        {threads.length + sendings.length > 5 && (
          <FindField
            label="Find a message"
            placeholder="Name or words"
            value={sought}
            onChange={setSought}
            width={200}
          />
        )}
        {mayWrite && (
          <Button kind="main" onPress={() => setWriting(true)}>
            New message
          </Button>
        )}
      </Bar>
      <Body data-open={threadId ?? sendingId}>
        <List aria-label={show === 'sent' ? 'Sent to many' : 'Threads'}>
          {show === 'sent' ? (
            <Sendings lines={sendings.filter(({ subject }) => has(subject))} open={sendingId} base={base} />
          ) : (
            <Threads lines={found} open={threadId} base={base} />
          )}
          {(show === 'sent' ? sendings.length : found.length) === 0 && (
            <Small as="footer">{sayNone(show, sought, mayWrite)}</Small>
          )}
          {show !== 'sent' && hasMore && (
            <footer>
              <Button kind="quiet" onPress={onMore}>
                Show earlier threads
              </Button>
            </footer>
          )}
        </List>
        <Outlet context={course} />
      </Body>
      {isWriting && (
        <WriteSheet
          onClose={() => setWriting(false)}
          onDone={(thread) => {
            setWriting(false);
            if (thread === null) setShow('sent');
            else void navigate(`${base}/${thread}`);
          }}
        />
      )}
    </Page>
  );
}

const nameOf = ({ with: one }: ThreadLine) => (one.kind === 'group' ? one.group.name : one.person.name);

function sayNone(show: Show, sought: string, mayWrite: boolean): string {
  if (sought.trim() !== '') return 'No message like that. Try a part of the name, or another word.';
  if (show === 'awaiting') return 'Every student who wrote has a reply.';
  if (show === 'sent') return 'What you send to several people or groups at once appears here.';
  return mayWrite ? 'No messages yet. Write the first one.' : 'Messages to you appear here.';
}

interface Lines<Line> {
  readonly lines: readonly Line[];
  readonly open: string | undefined;
  readonly base: string;
}

function Threads({ lines, open, base }: Lines<ThreadLine>) {
  const { dates } = useCourse();
  return (
    <ul>
      {lines.map((line) => (
        <li key={line.id}>
          <Link
            to={`${base}/${line.id}`}
            aria-current={line.id === open ? 'page' : undefined}
            data-unread={line.unread > 0 || undefined}
          >
            <b>
              <WithName of={line.with} />
            </b>
            <Small>{dates.dateTime(line.last.at)}</Small>
            <span className="subject" dir="auto">
              {line.subject}
            </span>
            {line.unread > 0 ? (
              <Tag $look="needs">{line.unread} new</Tag>
            ) : line.awaitsReply ? (
              <Tag $look="dash">awaits a reply</Tag>
            ) : (
              <span />
            )}
            <span className="excerpt" dir="auto">
              {line.last.by.isYou ? 'You' : line.last.by.name}: {line.last.excerpt}
            </span>
            {line.unread > 0 && line.awaitsReply && <Spoken>awaits a reply</Spoken>}
          </Link>
        </li>
      ))}
    </ul>
  );
}

function Sendings({ lines, open, base }: Lines<SendingLine>) {
  const { dates } = useCourse();
  return (
    <ul>
      {lines.map(({ id, subject, at, by, kind, count, replied }) => (
        <li key={id}>
          <Link to={`${base}/sent/${id}`} aria-current={id === open ? 'page' : undefined}>
            <b dir="auto">{subject}</b>
            <Small>{dates.dateTime(at)}</Small>
            <span className="excerpt">
              {by.isYou ? 'You' : by.name} to{' '}
              {kind === 'groups' ? counted(count, 'group') : counted(count, 'person', 'people')}
            </span>
            <Small>{replied} replied</Small>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** Beside the list while nothing of it is open. */
export function NothingOpen() {
  return <Empty title="No message open">Choose one from the list to read it and reply.</Empty>;
}
