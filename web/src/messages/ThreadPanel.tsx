import { Fragment, useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { styled } from 'styled-components';
import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { MessageId } from '@jigsaw/contract/common';
import type { MessageView, ThreadView } from '@jigsaw/contract/messages';
import { isProblem, ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Field, hueOfGroup, PersonName, Small, Tag, useFontsOf, Waiting } from '../look/index.js';
import { useAct, useKeptDraft } from '../page/index.js';
import {
  useMarkSeenMessagesMutation,
  useReadThreadQuery,
  useRemoveMessageMutation,
  useReplyToThreadMutation,
  useRestoreMessageMutation,
} from './messagesApi.js';
import { NotHere } from './NotHere.js';
import { WithName } from './WithName.js';

export const Reading = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  min-width: 0;
  > header {
    padding: 12px 24px;
    background: var(--surface);
    border-bottom: var(--hair);
  }
  > header h2 {
    font: var(--h-17);
    overflow-wrap: anywhere;
  }
  > .body {
    overflow: auto;
    padding: 18px 24px;
  }
  > footer {
    padding: 12px 24px 16px;
    border-top: 1px solid var(--ink);
    background: var(--paper);
  }
  .back {
    display: none;
  }
  @media (max-width: 700px) {
    > header,
    > .body,
    > footer {
      padding-inline: 16px;
    }
    .back {
      display: inline-block;
      padding: 10px 0;
    }
  }
  form {
    display: grid;
    gap: 8px;
    max-width: 760px;
  }
  form > div:last-child {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
  }
`;
const Message = styled.li`
  display: grid;
  gap: 6px;
  max-width: 760px;
  padding: 12px 16px;
  margin-bottom: 12px;
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  font: var(--t-15);
  &[data-staff] {
    border-left: 4px solid var(--ink);
  }
  header {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: center;
    font: var(--t-13);
  }
  header > :last-child {
    margin-left: auto;
  }
  p {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
`;

/** One thread: what was written in it, and a place to reply. */
export function ThreadPanel() {
  const { threadId = '' } = useParams();
  const thread = useReadThreadQuery(threadId);
  if (isProblem(unshown(thread), 'not-found')) return <NotHere />;
  if (unshown(thread) !== undefined)
    return <ProblemStrip of={thread.error} onRetry={() => void thread.refetch()} />;
  if (!thread.currentData) return <Waiting what="the thread" rows={4} />;
  return <Shown key={threadId} thread={thread.currentData} />;
}

function Shown({ thread }: { readonly thread: ThreadView }) {
  const { course } = useCourse();
  const { subject, messages, sendingId } = thread;
  const last = useSeenThread(thread);
  useFontsOf(subject);
  const base = `/c/${course.id}/messages`;
  return (
    <Reading
      aria-label={subject}
      style={thread.with.kind === 'group' ? hueOfGroup(thread.with.group.number) : undefined}
    >
      <header>
        <Link className="back" to={base}>
          All messages
        </Link>
        <h2 dir="auto">{subject}</h2>
        <Small>
          <Readers thread={thread} />
          {sendingId !== null && (
            <>
              {' · '}
              <Link to={`${base}/sent/${sendingId}`}>Sent to others too</Link>
            </>
          )}
        </Small>
      </header>
      <div className="body" tabIndex={0} role="group" aria-label="Messages of this thread">
        <ol>
          {messages.map((message, at) => (
            <Message
              key={message.id}
              data-staff={message.by.isStaff || undefined}
              ref={at === messages.length - 1 ? last : undefined}
            >
              <OneMessage message={message} />
            </Message>
          ))}
        </ol>
      </div>
      <footer>
        <ReplyForm threadId={thread.id} />
      </footer>
    </Reading>
  );
}

/** Who reads along, in words. */
function Readers({ thread: { with: one, members } }: { readonly thread: ThreadView }) {
  const { course } = useCourse();
  if (one.kind === 'group') {
    const to = course.role === 'student' ? `/c/${course.id}/room` : `/c/${course.id}/room/${one.group.id}`;
    return (
      <>
        <Link to={to}>{one.group.name}</Link>
        {members.map((name, at) => (
          <Fragment key={`${at} ${name}`}>
            {at === 0 ? ': ' : ', '}
            <PersonName name={name} />
          </Fragment>
        ))}
        . Staff read this too.
      </>
    );
  }
  if (one.person.isYou) return <>Between you and the staff who teach you.</>;
  return (
    <>
      With <WithName of={one} />
      {one.person.isStaff ? '.' : '. Instructors read this, and assistants who lead a group of theirs.'}
    </>
  );
}

function OneMessage({ message }: { readonly message: MessageView }) {
  const { dates } = useCourse();
  const { id, by, at, text, isNew } = message;
  useFontsOf(text);
  const restore = useAct(useRestoreMessageMutation());
  const remove = useAct(useRemoveMessageMutation(), {
    says: () => 'Message removed',
    undo: () => () => restore(id),
  });
  return (
    <>
      <header>
        <b>{by.isYou ? 'You' : <PersonName name={by.name} reading={by.reading} />}</b>
        <Small>
          {by.isStaff && !by.isYou && 'staff, '}
          {dates.dateTime(at)}
        </Small>
        {isNew && <Tag $look="solid">new</Tag>}
        <span>
          {message.mayRemove && (
            <Button
              kind="quiet"
              isSmall
              isDisabled={remove.isBusy}
              aria-label={`Remove the message of ${by.isYou ? 'yours' : by.name}, ${dates.dateTime(at)}`}
              onPress={() => void remove(id)}
            >
              Remove
            </Button>
          )}
        </span>
      </header>
      <p dir="auto">{text}</p>
    </>
  );
}

const Draft = z.object({ text: z.string() });
const newId = () => MessageId.parse(uuid());

/** What is not sent yet stays through a reload; a press that is sent twice writes one message. */
function ReplyForm({ threadId }: { readonly threadId: string }) {
  const [draft, setDraft, drop] = useKeptDraft(`reply ${threadId}`, Draft, { text: '' });
  const [id, setId] = useState(newId);
  const reply = useAct(useReplyToThreadMutation(), {
    isRefusalShown: true,
    // What was sent unseen stands above by now; what is pressed next is another message.
    refused: (refusal) => {
      if (isProblem(refusal, 'conflict')) setId(newId());
      return false;
    },
  });
  const submit = async () => {
    if (draft.text.trim() === '') return;
    if (!(await reply({ threadId, body: { id, text: draft.text } }))) return;
    drop();
    setId(newId());
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {reply.error !== undefined && <ProblemStrip of={reply.error} />}
      <Field
        label="Reply"
        lines={3}
        maxLength={10_000}
        value={draft.text}
        onChange={(text) => setDraft({ text })}
      />
      <div>
        <Button kind="main" type="submit" isDisabled={draft.text.trim() === '' || reply.isBusy}>
          {reply.isBusy ? 'One moment…' : 'Send reply'}
        </Button>
        {draft.text !== '' && <Small>Kept in this tab until you send it.</Small>}
      </div>
    </form>
  );
}

/** So long the last message stands in view before the thread counts as read. */
const longEnoughMs = 1200;

/** Says that a thread was read once its last message has stood in view for a moment; also brings it into view.
 * @returns the place of the last message. */
function useSeenThread({ id, messages }: ThreadView) {
  const [markSeen] = useMarkSeenMessagesMutation();
  const last = useRef<HTMLLIElement>(null);
  const upTo = messages.at(-1)?.number;
  const isNew = messages.some((message) => message.isNew);
  useEffect(() => {
    if (upTo !== undefined) last.current?.scrollIntoView({ block: 'nearest' });
  }, [id, upTo]);
  useEffect(() => {
    if (upTo === undefined || !isNew || !last.current) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const observer = new IntersectionObserver(([entry]) => {
      clearTimeout(timer);
      if (entry?.isIntersecting)
        timer = setTimeout(() => void markSeen({ threadId: id, body: { upTo } }), longEnoughMs);
    });
    observer.observe(last.current);
    return () => {
      clearTimeout(timer);
      observer.disconnect();
    };
  }, [id, upTo, isNew, markSeen]);
  return last;
}
