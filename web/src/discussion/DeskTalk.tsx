import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { valuesOf } from '../rooms/index.js';
import { PersonName, Small, Tag, Waiting } from '../look/index.js';
import { RichText } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { useReadDiscussionQuery, useReadTalkChangesQuery } from './discussionApi.js';
import { sayWords } from './words.js';

/** The talk as it lies on the Marking desk: all of it, or what one student wrote with what it answers. */
export default function DeskTalk({
  head,
  student,
}: {
  readonly head: CopyHead;
  readonly student: string | null;
}) {
  const { dates } = useCourse();
  const talk = useReadDiscussionQuery({ copyId: head.id, after: null });
  useReadTalkChangesQuery(head.id);
  if (unshown(talk) !== undefined)
    return <ProblemStrip of={talk.error} onRetry={() => void talk.refetch()} />;
  if (!talk.data) return <Waiting what="the discussion" rows={5} />;
  const posts = talk.data.threads.flatMap((thread) => thread.posts).filter((post) => post.text !== null);
  const shown = posts.filter((post) => student === null || post.author.enrolmentId === student);
  if (shown.length === 0) {
    return (
      <header>
        <b>Nothing written yet</b>
      </header>
    );
  }
  return shown.map((post) => {
    const answered = post.parentId === null ? null : posts.find((other) => other.id === post.parentId);
    return (
      <section key={post.id}>
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
        {student !== null && answered?.text && (
          <details>
            <summary>
              <Small>What it answers</Small>
            </summary>
            <RichText node={answered.text} />
          </details>
        )}
        <RichText node={sure(post.text)} values={valuesOf(head)} />
      </section>
    );
  });
}
