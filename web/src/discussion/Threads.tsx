import { styled } from 'styled-components';
import type { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import type { useSeen } from '../rooms/index.js';
import { Button, useNotice, Waiting } from '../look/index.js';
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

interface ThreadProps {
  readonly head: CopyHead;
  readonly settings: DiscussionSettings;
  readonly posts: readonly PostView[];
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
  mayReply,
  arrivedNew,
  seen,
  answering,
  onAnswer,
}: ThreadProps) {
  const notice = useNotice();
  const [first] = posts;
  if (!first) return null;
  const answered = posts.find((post) => post.id === answering);
  return (
    <Thread aria-label={`Thread of ${first.author.name}`}>
      {posts.map((post) => (
        <Post
          key={post.id}
          head={head}
          post={post}
          settings={settings}
          answers={
            post.parentId === null || post.parentId === first.id
              ? null
              : (posts.find((other) => other.id === post.parentId) ?? null)
          }
          isNew={post.text !== null && (post.isNew || arrivedNew.has(post.id))}
          seenRef={post.isNew ? seen(post.id, post.version) : noRef}
          onAnswer={mayReply ? () => onAnswer(post.id) : null}
        />
      ))}
      {answered && (
        <div className="answer">
          <PostBox
            key={answered.id}
            copyId={head.id}
            parent={answered}
            wanted={head.part === 'member' ? settings.replyWords : 0}
            label={`Your answer to ${answered.author.name}`}
            send={`Answer ${answered.author.isYou ? 'yourself' : answered.author.name.split(' ')[0]}`}
            minHeight={72}
            onSent={() => {
              onAnswer(null);
              notice('Answered');
            }}
            onLeave={() => onAnswer(null)}
          />
        </div>
      )}
    </Thread>
  );
}

const noRef = () => undefined;

interface MoreProps {
  readonly head: CopyHead;
  readonly after: string;
  readonly render: (view: DiscussionView) => React.ReactNode;
  readonly onMore: (after: string) => void;
  readonly isLast: boolean;
}

export function MoreThreads({ head, after, render, onMore, isLast }: MoreProps) {
  const more = useReadDiscussionQuery({ copyId: head.id, after });
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
