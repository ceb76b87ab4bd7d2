import type { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import { sure } from '@jigsaw/core/lists';
import { inParts, Nearby, reveal } from '../page/index.js';
import { PersonName, Small } from '../look/index.js';
import { sayWords } from './words.js';
import { counted } from '@jigsaw/core/text';

const linesInPart = 60;
const usualLinePx = 26;

/** A line a post, as long as its words: where the talk is thick and where it is thin. */
export function Shape({
  posts,
  settings,
}: {
  readonly posts: readonly PostView[];
  readonly settings: DiscussionSettings;
}) {
  const most = posts.reduce(
    (longest, post) => Math.max(longest, post.words),
    Math.max(settings.postWords, 1),
  );
  const shown = posts.filter((post) => post.text);
  if (shown.length < 3) return null;
  const line = (post: PostView) => (
    <li key={post.id} data-reply={post.parentId !== null || undefined}>
      <a
        href={`#post-${post.id}`}
        onClick={(event) => {
          event.preventDefault(); // it may not be drawn yet
          reveal('post', post.id);
        }}
        data-new={post.isNew || undefined}
        style={{ '--long': `${Math.round((post.words / most) * 100)}%` } as never}
      >
        <b>
          <PersonName name={post.author.isYou ? 'You' : post.author.name} />
        </b>
        <span>{post.words}</span>
        <i aria-hidden="true" />
      </a>
    </li>
  );
  return (
    <nav aria-label="The posts by words">
      {inParts(shown, linesInPart).map((part, at) => (
        <Nearby key={sure(part[0]).id} isFirst={at === 0} estimatePx={part.length * usualLinePx}>
          {() => <ul className="shape">{part.map(line)}</ul>}
        </Nearby>
      ))}
    </nav>
  );
}

export function Met({
  view,
  settings,
  isMember,
}: {
  readonly view: DiscussionView;
  readonly settings: DiscussionSettings;
  readonly isMember: boolean;
}) {
  const asked = [
    settings.posts > 0 &&
      `${counted(settings.posts, 'post')}${settings.postWords > 0 ? ` of ${sayWords(settings.postWords)}` : ''}`,
    settings.replies > 0 &&
      `${counted(settings.replies, 'reply', 'replies')}${settings.replyWords > 0 ? ` of ${sayWords(settings.replyWords)}` : ''}`,
  ].filter(Boolean);
  const count = ({ done, asked: wanted }: { done: number; asked: number }) =>
    wanted === 0 ? `${done}` : `${Math.min(done, wanted)} of ${wanted}`;
  return (
    <div>
      <h2>{isMember ? 'You so far' : 'Who has met it'}</h2>
      <Small>From each: {asked.join(' and ')}.</Small>
      <table>
        <thead>
          <tr>
            <th>{isMember ? '' : 'Student'}</th>
            <th>Posts</th>
            <th>Replies</th>
          </tr>
        </thead>
        <tbody>
          {view.met.map(({ member, posts, replies, isComplete }) => (
            <tr key={member.enrolmentId}>
              <td>{isMember ? isComplete ? 'Done' : 'Incomplete' : <PersonName name={member.name} />}</td>
              <td>{count(posts)}</td>
              <td>{count(replies)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
