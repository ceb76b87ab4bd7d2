import { Reply } from 'lucide-react';
import { memo, Suspense, useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { DiscussionSettings, PostView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { RichTextNode } from '@jigsaw/core/text';
import { plainText } from '@jigsaw/core/text';
import { isProblem, problemOf, ProblemStrip } from '../api/index.js';
import type { useSeen } from '../rooms/index.js';
import { valuesOf } from '../rooms/index.js';
import { Button, initials, PersonName, Small, Tag, Waiting } from '../look/index.js';
import { RichText, RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { useChangePostMutation, useDeletePostMutation } from './discussionApi.js';
import { WordRule } from './WordRule.js';
import { useAct } from '../page/index.js';

const Box = styled.article`
  padding: 12px 16px;
  scroll-margin-top: 8px;
  &[data-reply] {
    margin-left: 26px;
    border-left: 2px solid var(--line);
    padding: 10px 16px;
  }
  &[data-new] {
    background: var(--hue-tint, var(--wash-2));
    border-left: 3px solid var(--ink);
  }
  > header {
    display: flex;
    align-items: center;
    flex-wrap: wrap;
    gap: 4px 8px;
    margin-bottom: 6px;
    font: var(--t-13);
  }
  > header b {
    font-weight: 650;
  }
  > header > :last-child {
    margin-left: auto;
  }
  .who {
    display: grid;
    place-items: center;
    min-width: 26px;
    height: 24px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    font: 650 11px/1 var(--font-text);
  }
  .who[data-staff] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
  }
  > footer {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    margin: 6px 0 -4px -8px;
  }
  .gone {
    color: var(--ink-2);
    font-style: italic;
  }
`;

interface PostProps {
  readonly head: CopyHead;
  readonly post: PostView;
  readonly settings: DiscussionSettings;
  /** The post that this one answers, where that is not the one that opened the thread. */
  readonly answers: PostView | null;
  readonly isNew: boolean;
  readonly seen: ReturnType<typeof useSeen>;
  readonly onAnswer: ((postId: string) => void) | null;
}

/** One post: whose, when, how long; its author edits it, and those who may delete it can restore it. */
export const Post = memo(function Post({ head, post, settings, answers, isNew, seen, onAnswer }: PostProps) {
  const { dates } = useCourse();
  const [isChanging, setIsChanging] = useState(false);
  const deletePost = useAct(useDeletePostMutation(), {
    says: (_post, { isDeleted }) => (isDeleted ? 'Post deleted' : 'Post restored'),
    inverse: (asked) => ({ ...asked, isDeleted: !asked.isDeleted }),
    isRefusalShown: true,
  });
  const { author, text, id, version } = post;
  const watch = useMemo(() => (post.isNew ? seen(id, version) : undefined), [post.isNew, seen, id, version]);
  const isReply = post.parentId !== null;
  const remove = () => deletePost({ copyId: head.id, postId: post.id, isDeleted: true });
  return (
    <Box
      ref={watch}
      id={`post-${post.id}`}
      data-reply={isReply || undefined}
      data-new={isNew || undefined}
      aria-label={`${author.name}, ${dates.dateTime(post.createdAt)}`}
    >
      <header>
        <span className="who" data-staff={author.isStaff || undefined} aria-hidden="true">
          {initials(author.name)}
        </span>
        <b>
          <PersonName name={author.name} reading={author.reading} />
        </b>
        {author.isStaff && <Tag $look="plain">staff</Tag>}
        {isNew && <Tag $look="solid">new</Tag>}
        <Small>
          {dates.dateTime(post.createdAt)}
          {post.editedAt && `, edited ${dates.dateTime(post.editedAt)}`}
          {answers && `, to ${answers.author.name}`}
        </Small>
        {text && !author.isStaff ? (
          <WordRule words={post.words} wanted={isReply ? settings.replyWords : settings.postWords} />
        ) : (
          <span />
        )}
      </header>
      {deletePost.error !== undefined && <ProblemStrip of={deletePost.error} />}
      {isChanging && text ? (
        <ChangePost head={head} post={post} text={text} onDone={() => setIsChanging(false)} />
      ) : text ? (
        <RichText node={text} values={valuesOf(head)} />
      ) : (
        <p className="gone">{sayGone(post)}</p>
      )}
      {!isChanging && (
        <footer>
          {text && onAnswer && (
            <Button
              kind="quiet"
              isSmall
              onPress={() => onAnswer(post.id)}
              aria-label={`Reply to ${author.name}`}
            >
              <Reply size={14} aria-hidden="true" />
              Reply
            </Button>
          )}
          {post.mayChange && (
            <Button kind="quiet" isSmall onPress={() => setIsChanging(true)}>
              Edit
            </Button>
          )}
          {text && post.mayDelete && (
            <Button
              kind="quiet"
              isSmall
              onPress={() => void remove()}
              aria-label={`Delete ${author.isYou ? 'your' : `${author.name}’s`} post`}
            >
              Delete
            </Button>
          )}
          {post.deletedBy === 'you' && (
            <Button
              kind="quiet"
              isSmall
              onPress={() => void deletePost({ copyId: head.id, postId: post.id, isDeleted: false })}
            >
              Restore
            </Button>
          )}
        </footer>
      )}
    </Box>
  );
});

function sayGone({ deletedBy }: PostView): string {
  if (deletedBy === 'you')
    return 'You deleted this post. Only you can see that it was here, unless someone replied to it.';
  return deletedBy === 'staff' ? 'Deleted by staff.' : 'Deleted by its author.';
}

interface ChangeProps {
  readonly head: CopyHead;
  readonly post: PostView;
  readonly text: RichTextNode;
  readonly onDone: () => void;
}

function ChangePost({ head, post, text, onDone }: ChangeProps) {
  const [draft, setDraft] = useState(text);
  const [version, setVersion] = useState(post.version);
  const [change, { error, isLoading }] = useChangePostMutation();
  const isStale = isProblem(error, 'stale-write');
  const save = async () => {
    const answer = await change({ copyId: head.id, postId: post.id, body: { text: draft, version } });
    if ('data' in answer && answer.data) onDone();
  };
  return (
    <>
      {error && !isStale && <ProblemStrip of={error} />}
      {isStale && (
        <ProblemStrip>
          {problemOf(error).detail}
          <RichText node={text} />
          <Button isSmall onPress={() => setVersion(post.version)}>
            Keep my text
          </Button>{' '}
          <Button isSmall onPress={onDone}>
            Use the other text
          </Button>
        </ProblemStrip>
      )}
      <Suspense fallback={<Waiting what="the editor" rows={2} />}>
        <RichTextEditor label="Your post" value={draft} onChange={setDraft} minHeight={90} takesFocus />
      </Suspense>
      <footer>
        <Button isSmall isDisabled={isLoading || plainText(draft) === ''} onPress={() => void save()}>
          {isLoading ? 'Saving…' : 'Save'}
        </Button>
        <Button kind="quiet" isSmall onPress={onDone}>
          Cancel
        </Button>
      </footer>
    </>
  );
}
