import type { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import { PersonName, Small } from '../look/index.js';
import { sayWords } from './words.js';
import { counted } from '@jigsaw/core/text';

/** A line a post, as long as its words: where the talk is thick and where it is thin. */
export function Shape({
  posts,
  settings,
}: {
  readonly posts: readonly PostView[];
  readonly settings: DiscussionSettings;
}) {
  const most = Math.max(settings.postWords, ...posts.map((post) => post.words), 1);
  const shown = posts.filter((post) => post.text);
  if (shown.length < 3) return null;
  return (
    <nav aria-label="The posts by words">
      <ul className="shape">
        {shown.map((post) => (
          <li key={post.id} data-reply={post.parentId !== null || undefined}>
            <a
              href={`#post-${post.id}`}
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
        ))}
      </ul>
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
      <h2>{isMember ? 'You so far' : 'Who has done it'}</h2>
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
              <td>{isMember ? isComplete ? 'Done' : 'Not yet all' : <PersonName name={member.name} />}</td>
              <td>{count(posts)}</td>
              <td>{count(replies)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
