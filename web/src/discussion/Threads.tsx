import { useEffect, useEffectEvent } from 'react';
import { styled } from 'styled-components';
import type { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { PostId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import type { useSeen } from '../rooms/index.js';
import { Button, useNotice, Waiting } from '../look/index.js';
import { inParts, Nearby, reveal } from '../page/index.js';
import { useReadDiscussionQuery } from './discussionApi.js';
import { Post } from './Post.js';
import { PostBox } from './PostBox.js';

const Thread = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 2px 0 6px;
  .answer {
    margin: 6px 16px 8px 42px;
  }
`;

/** Drawn together. */
const postsInPart = 12;
const usualPostPx = 130;

interface ThreadProps {
  readonly head: CopyHead;
  readonly settings: DiscussionSettings;
  readonly posts: readonly PostView[];
  /** Drawn from the start, as far as a first screen shows. */
  readonly isFirst: boolean;
  readonly mayReply: boolean;
  readonly arrivedNew: ReadonlySet<string>;
  readonly seen: ReturnType<typeof useSeen>;
  readonly answering: string | null;
  readonly onAnswer: (postId: string | null) => void;
}

export function ThreadOfPosts({
  head,
  settings,
  posts,
  isFirst,
  mayReply,
  arrivedNew,
  seen,
  answering,
  onAnswer,
}: ThreadProps) {
  const notice = useNotice();
  const [first] = posts;
  if (!first) return null;
  const byId = keyedBy(posts, (post) => post.id);
  const answered = answering === null ? undefined : byId.get(answering as PostId);
  const drawn = (post: PostView) => (
    <Post
      key={post.id}
      head={head}
      post={post}
      settings={settings}
      answers={
        post.parentId === null || post.parentId === first.id ? null : (byId.get(post.parentId) ?? null)
      }
      isNew={post.text !== null && (post.isNew || arrivedNew.has(post.id))}
      seen={seen}
      onAnswer={mayReply ? onAnswer : null}
    />
  );
  return (
    <Thread aria-label={`Thread of ${first.author.name}`}>
      {inParts(posts, postsInPart).map((part, at) => (
        <Nearby
          key={sure(part[0]).id}
          isFirst={isFirst && at === 0}
          estimatePx={part.length * usualPostPx}
          holds={part.map((post) => post.id)}
        >
          {() => part.map(drawn)}
        </Nearby>
      ))}
      {answered && (
        <div className="answer">
          <PostBox
            key={answered.id}
            copyId={head.id}
            parent={answered}
            wanted={head.part === 'member' ? settings.replyWords : 0}
            label={`Your reply to ${answered.author.name}`}
            send={`Reply to ${answered.author.isYou ? 'yourself' : answered.author.name.split(' ')[0]}`}
            minHeight={72}
            onSent={() => {
              onAnswer(null);
              notice('Replied');
            }}
            onLeave={() => onAnswer(null)}
          />
        </div>
      )}
    </Thread>
  );
}

interface MoreProps {
  readonly head: CopyHead;
  readonly after: string;
  readonly render: (view: DiscussionView) => React.ReactNode;
  readonly onMore: (after: string) => void;
  readonly isLast: boolean;
  /** A post that one came for; null: none. */
  readonly wanted: string | null;
}

/** Whether a post stands on this page of a talk. */
export const holds = ({ threads }: DiscussionView, postId: string): boolean =>
  threads.some(({ posts }) => posts.some(({ id }) => id === postId));

/** A later page of a talk. Where it does not hold the post that one came for, the next page is asked for. */
export function MoreThreads({ head, after, render, onMore, isLast, wanted }: MoreProps) {
  const more = useReadDiscussionQuery({ copyId: head.id, after });
  const isHere = wanted !== null && more.data !== undefined && holds(more.data, wanted);
  const goesOn = isLast && wanted !== null && !isHere ? (more.data?.next ?? null) : null;
  const goOn = useEffectEvent(onMore);
  useEffect(() => {
    if (isHere) reveal('post', wanted);
  }, [isHere, wanted]);
  useEffect(() => {
    if (goesOn !== null) goOn(goesOn);
  }, [goesOn]);
  if (unshown(more) !== undefined)
    return <ProblemStrip of={more.error} onRetry={() => void more.refetch()} />;
  if (!more.data) return <Waiting what="later threads" rows={3} />;
  const { next } = more.data;
  return (
    <>
      {render(more.data)}
      {isLast && next !== null && <Button onPress={() => onMore(next)}>Show later threads</Button>}
    </>
  );
}
