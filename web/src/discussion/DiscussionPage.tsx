import { ArrowDown } from 'lucide-react';
import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { DiscussionView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { CopyFrame, useMarkSeenMutation, useSeen, valuesOf } from '../rooms/index.js';
import { reveal, useKey } from '../page/index.js';
import { Button, Key, Small, useNotice, Waiting, Split } from '../look/index.js';
import { RubricTable } from '../rubric/index.js';
import { RichText } from '../text/index.js';
import { useReadDiscussionQuery, useReadTalkChangesQuery } from './discussionApi.js';
import { PostBox } from './PostBox.js';
import { Shape, Met } from './Asked.js';
import { ThreadOfPosts, MoreThreads } from './Threads.js';

const Side = styled.aside`
  overflow: auto;
  border-right: var(--hair);
  background: var(--paper);
  padding: 16px 18px 20px 26px;
  display: grid;
  gap: 14px;
  align-content: start;
  h2 {
    font: var(--h-17);
    margin-bottom: 4px;
  }
  ul.shape {
    display: grid;
    gap: 1px;
    font: var(--t-12);
  }
  ul.shape a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 8px;
    padding: 3px 6px;
    text-decoration: none;
    border-radius: var(--r-1);
  }
  ul.shape a:hover {
    background: var(--wash);
  }
  ul.shape li[data-reply] {
    padding-left: 12px;
  }
  ul.shape b {
    font-weight: 600;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  ul.shape i {
    grid-column: 1 / -1;
    height: 3px;
    background: linear-gradient(var(--hue, var(--ink)) 0 0) left / var(--long) 100% no-repeat var(--line);
  }
  ul.shape [data-new] b::before {
    content: '';
    display: inline-block;
    width: 7px;
    height: 7px;
    margin-right: 5px;
    border-radius: 2px;
    background: var(--ink);
  }
  table {
    width: 100%;
    font: var(--t-12);
    border-collapse: collapse;
  }
  td,
  th {
    text-align: left;
    padding: 4px 0;
    border-bottom: var(--hair);
    font-weight: 500;
  }
  td:not(:first-child),
  th:not(:first-child) {
    text-align: right;
    white-space: nowrap;
    padding-left: 8px;
  }
  @media (max-width: 900px) {
    border-right: 0;
    border-bottom: 1px solid var(--ink);
    padding: 14px 16px;
    ul.shape {
      display: none;
    }
  }
`;
const Talk = styled.div`
  overflow: auto;
  padding: 16px 22px 32px;
  > div {
    max-width: 860px;
    display: grid;
    gap: 12px;
  }
  @media (max-width: 700px) {
    padding: 14px 12px 24px;
  }
`;
const NewThread = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 12px 16px;
  h2 {
    font: var(--h-17);
    margin-bottom: 8px;
  }
`;
const Top = styled.div`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 10px;
  .grow {
    flex: 1;
  }
`;

/** A group's talk: its shape on the left, its threads in the middle, an answer under whatever is answered. */
export default function DiscussionPage({ head }: { readonly head: CopyHead }) {
  const [afters, setAfters] = useState<readonly (string | null)[]>([null]);
  return (
    <CopyFrame head={head}>
      <Pages head={head} afters={afters} onMore={(after) => setAfters([...afters, after])} />
    </CopyFrame>
  );
}

interface PagesProps {
  readonly head: CopyHead;
  readonly afters: readonly (string | null)[];
  readonly onMore: (after: string) => void;
}

function Pages({ head, afters, onMore }: PagesProps) {
  const first = useReadDiscussionQuery({ copyId: head.id, after: null });
  useReadTalkChangesQuery(head.id);
  // The first page carries the requirement and what one may do; further pages only add threads.
  if (unshown(first) !== undefined)
    return <ProblemStrip of={first.error} onRetry={() => void first.refetch()} />;
  if (!first.data) return <Waiting what="the discussion" rows={8} />;
  return <Discussion head={head} view={first.data} afters={afters.slice(1)} onMore={onMore} />;
}

function Discussion({
  head,
  view,
  afters,
  onMore,
}: { readonly head: CopyHead; readonly view: DiscussionView } & Omit<PagesProps, 'head'>) {
  const settings = useMemo(() => DiscussionSettings.parse(head.settings), [head.settings]);
  const notice = useNotice();
  const seen = useSeen(head.id);
  const [markSeen] = useMarkSeenMutation();
  const [answering, setAnswering] = useState<string | null>(null);
  const arrivedNew = useNewAtArrival(view);
  const posts = view.threads.flatMap((thread) => thread.posts);
  const isMember = head.part === 'member';
  const unread = posts.filter((post) => post.isNew && post.text);

  const jump = () => unread[0] && reveal('post', unread[0].id);
  useKey('n', jump);

  const drawn = ({ threads }: DiscussionView) =>
    threads.map((thread, at) => (
      <ThreadOfPosts
        key={thread.id}
        head={head}
        settings={settings}
        posts={thread.posts}
        isFirst={at === 0 || posts.length <= drawnAtOnce}
        mayReply={view.mayReply}
        arrivedNew={arrivedNew}
        seen={seen}
        answering={answering}
        onAnswer={setAnswering}
      />
    ));
  return (
    <Split $aside="264px" $side="left">
      <Side aria-label="Requirement" data-scroller>
        <div>
          <h2>Requirement</h2>
          <RichText node={head.brief} values={valuesOf(head)} />
        </div>
        {head.rubric && head.points !== null && (
          <RubricTable rubric={head.rubric} points={head.points} isFolded />
        )}
        {view.met.length > 0 && <Met view={view} settings={settings} isMember={isMember} />}
        <Shape posts={posts} settings={settings} />
      </Side>
      <Talk tabIndex={-1} data-scroller>
        <div>
          {unread.length > 0 && (
            <Top>
              <b>{unread.length} unread</b>
              <span className="grow" />
              <Button
                kind="quiet"
                isSmall
                onPress={() => void markSeen({ copyId: head.id, body: { what: 'all' } })}
              >
                Mark all as read
              </Button>
              <Button isSmall onPress={jump}>
                Next unread <ArrowDown size={13} aria-hidden="true" /> <Key>N</Key>
              </Button>
            </Top>
          )}
          {view.threads.length === 0 && (
            <p>{view.mayOpenThread ? 'No posts yet. Write the first one.' : 'No posts yet.'}</p>
          )}
          {drawn(view)}
          {afters.map((after) => (
            <MoreThreads
              key={after}
              head={head}
              after={sure(after)}
              render={drawn}
              onMore={onMore}
              isLast={after === afters.at(-1)}
            />
          ))}
          {view.next !== null && afters.length === 0 && (
            <Button onPress={() => onMore(sure(view.next))}>{sayLater(head.unread - unread.length)}</Button>
          )}
          {view.mayOpenThread ? (
            <NewThread aria-label={isMember ? 'Your post' : 'Start a thread'}>
              <h2>{isMember ? 'Your post' : 'Start a thread'}</h2>
              <PostBox
                copyId={head.id}
                parent={null}
                wanted={isMember ? settings.postWords : 0}
                label="New post"
                send={head.group ? `Post to ${head.group.name}` : `Post to all ${head.members.length}`}
                minHeight={100}
                onSent={(post) => {
                  notice('Posted');
                  reveal('post', post.id);
                  // It stands at the end, on a page that may not be there yet.
                  if (view.next !== null && afters.length === 0) onMore(view.next);
                }}
              />
            </NewThread>
          ) : (
            <Small>{sayWhyNot(head, view)}</Small>
          )}
        </div>
      </Talk>
    </Split>
  );
}

/** A talk of so few is drawn whole. */
const drawnAtOnce = 60;

const sayLater = (unread: number) =>
  unread > 0 ? `Show later threads, ${unread} unread` : 'Show later threads';

function sayWhyNot(head: CopyHead, view: DiscussionView): string {
  if (view.mayReply) return 'Staff start the threads here. You can reply in them.';
  return head.part === 'reader'
    ? 'You read along here.'
    : 'This is closed. You can read it, but no longer write.';
}

/** What was new when it came into view stays marked for this visit, although it counts as seen. */
function useNewAtArrival(view: DiscussionView): ReadonlySet<string> {
  const [arrived, setArrived] = useState<ReadonlySet<string>>(new Set());
  const fresh = view.threads
    .flatMap((thread) => thread.posts)
    .filter((post) => post.isNew && !arrived.has(post.id));
  if (fresh.length > 0) setArrived(new Set([...arrived, ...fresh.map((post) => post.id)]));
  return arrived;
}
