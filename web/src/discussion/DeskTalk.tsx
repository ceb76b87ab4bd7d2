import type { PostView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { valuesOf } from '../rooms/index.js';
import { PersonName, Small, Tag, Waiting } from '../look/index.js';
import { RichText } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { useReadDiscussionQuery, useReadTalkChangesQuery } from './discussionApi.js';
import { sayWords } from './words.js';

interface DeskTalkProps {
  readonly head: CopyHead;
  readonly student: string | null;
}
/** The talk as it lies on the Marking desk: all of it, or what one student wrote with what it answers. */
export default function DeskTalk({ head, student }: DeskTalkProps) {
  useReadTalkChangesQuery(head.id);
  return <TalkFrom head={head} student={student} after={null} isBlankSoFar />;
}

interface TalkFromProps extends DeskTalkProps {
  readonly after: string | null;
  readonly isBlankSoFar: boolean;
}
/** A page of the talk, and all that follow: anyone who marks sees everything. */
function TalkFrom({ head, student, after, isBlankSoFar }: TalkFromProps) {
  const talk = useReadDiscussionQuery({ copyId: head.id, after });
  if (unshown(talk) !== undefined)
    return <ProblemStrip of={talk.error} onRetry={() => void talk.refetch()} />;
  if (!talk.data) return <Waiting what="the discussion" rows={5} />;
  const { threads, next } = talk.data;
  const posts = threads.flatMap((thread) => thread.posts).filter((post) => post.text !== null);
  const shown = posts.filter((post) => student === null || post.author.enrolmentId === student);
  const isBlank = isBlankSoFar && shown.length === 0;
  return (
    <>
      {isBlank && next === null && (
        <header>
          <b>Nothing written yet</b>
        </header>
      )}
      {shown.map((post) => (
        <DeskPost key={post.id} head={head} post={post} posts={posts} isOfOne={student !== null} />
      ))}
      {next !== null && <TalkFrom head={head} student={student} after={next} isBlankSoFar={isBlank} />}
    </>
  );
}

interface DeskPostProps {
  readonly head: CopyHead;
  readonly post: PostView;
  readonly posts: readonly PostView[];
  readonly isOfOne: boolean;
}
function DeskPost({ head, post, posts, isOfOne }: DeskPostProps) {
  const { dates } = useCourse();
  const answered = post.parentId === null ? null : posts.find((other) => other.id === post.parentId);
  return (
    <section>
      <header>
        <b>
          <PersonName name={post.author.name} reading={post.author.reading} />
        </b>
        {post.author.isStaff && <Tag $look="plain">staff</Tag>}
        <span>
          {post.parentId === null ? 'post' : `reply${answered ? ` to ${answered.author.name}` : ''}`},{' '}
          {sayWords(post.words)}, {dates.dateTime(post.createdAt)}
        </span>
      </header>
      {isOfOne && answered?.text && (
        <details>
          <summary>
            <Small>The post it replies to</Small>
          </summary>
          <RichText node={answered.text} />
        </details>
      )}
      <RichText node={sure(post.text)} values={valuesOf(head)} />
    </section>
  );
}
