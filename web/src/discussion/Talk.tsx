import { ArrowDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { styled } from 'styled-components';
import type { DiscussionSettings, DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { useMarkSeenMutation, useSeen } from '../rooms/index.js';
import { reveal, useAct, useKey } from '../page/index.js';
import { Button, Key, Small, useNotice, Waiting } from '../look/index.js';
import { useReadDiscussionQuery, useReadTalkChangesQuery } from './discussionApi.js';
import { PostBox } from './PostBox.js';
import { holds, MoreThreads, ThreadOfPosts } from './Threads.js';

const Threads = styled.div`
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

/** What a talk is called where it stands. */
export interface TalkWords {
  /** Over the box for a new thread. */
  readonly begin: string;
  /** The name of that box. */
  readonly label: string;
  /** "Post", before "to Crock". */
  readonly send: string;
  readonly empty: string;
  readonly none: string;
  readonly waits: string;
  /** Why no one but staff, or no one at all, begins anything here. */
  readonly off: string;
}

interface TalkProps {
  readonly head: CopyHead;
  readonly settings: DiscussionSettings;
  readonly says: TalkWords;
  /** What stands above its first thread. */
  readonly over?: ReactNode;
  /** Puts the threads in their place. */
  readonly children: (view: DiscussionView, posts: readonly PostView[], threads: ReactNode) => ReactNode;
}

/** The talk of one copy, kept up with what others write. The first page carries the requirement and what one may do; further pages only add threads. */
export default function Talk(props: TalkProps) {
  const { head, says } = props;
  const first = useReadDiscussionQuery({ copyId: head.id, after: null });
  useReadTalkChangesQuery(head.id);
  if (unshown(first) !== undefined)
    return <ProblemStrip of={first.error} onRetry={() => void first.refetch()} />;
  if (!first.data) return <Waiting what={says.waits} rows={8} />;
  return <Talking {...props} view={first.data} />;
}

function Talking({
  head,
  settings,
  says,
  over,
  children,
  view,
}: TalkProps & { readonly view: DiscussionView }) {
  // Who comes for one post finds it, on whatever page of the talk it stands, with the box to answer it open.
  const { hash } = useLocation();
  const wanted = /^#post-(.+)$/.exec(hash)?.[1] ?? null;
  const [afters, setAfters] = useState<readonly string[]>(() =>
    wanted === null || view.next === null || holds(view, wanted) ? [] : [view.next],
  );
  const onMore = (after: string) => setAfters((before) => [...before, after]);
  const notice = useNotice();
  const seen = useSeen(head.id);
  const markSeen = useAct(useMarkSeenMutation());
  const [answering, setAnswering] = useState(view.mayReply ? wanted : null);
  const isOnFirstPage = wanted !== null && holds(view, wanted);
  useEffect(() => {
    if (isOnFirstPage) reveal('post', wanted);
  }, [isOnFirstPage, wanted]);
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
  const threads = (
    <Threads tabIndex={-1} data-scroller>
      <div>
        {over}
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
        {view.threads.length === 0 && <p>{view.mayOpenThread ? says.empty : says.none}</p>}
        {drawn(view)}
        {afters.map((after) => (
          <MoreThreads
            key={after}
            head={head}
            after={after}
            render={drawn}
            onMore={onMore}
            isLast={after === afters.at(-1)}
            wanted={wanted}
          />
        ))}
        {view.next !== null && afters.length === 0 && (
          <Button onPress={() => onMore(sure(view.next))}>{sayLater(head.unread - unread.length)}</Button>
        )}
        {view.mayOpenThread ? (
          <NewThread aria-label={says.begin}>
            <h2>{says.begin}</h2>
            <PostBox
              copyId={head.id}
              parent={null}
              wanted={isMember ? settings.postWords : 0}
              label={says.label}
              send={`${says.send} to ${head.group ? head.group.name : `all ${head.members.length}`}`}
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
          <Small>{sayWhyNot(head, view, says)}</Small>
        )}
      </div>
    </Threads>
  );
  return <>{children(view, posts, threads)}</>;
}

/** A talk of so few is drawn whole. */
const drawnAtOnce = 60;

const sayLater = (unread: number) =>
  unread > 0 ? `Show later threads, ${unread} unread` : 'Show later threads';

function sayWhyNot(head: CopyHead, view: DiscussionView, says: TalkWords): string {
  if (head.part === 'reader') return 'You read along here.';
  return view.mayReply || head.access === 'open'
    ? says.off
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
