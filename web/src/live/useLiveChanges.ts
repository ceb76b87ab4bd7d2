import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { api, apiAddress, pageId, tagTypes } from '../api/index.js';

type Tag = Parameters<typeof api.util.invalidateTags>[0][number];

/** What a release does at its minute, without anyone's act. */
const byItself: readonly Tag[] = ['Activity', 'Room', 'Copy', 'Call', 'Talk', 'Desk', 'Gradebook', 'MyMarks'];

/** Which cached facts each kind of change makes old. */
const tagsByChange: Readonly<Record<string, readonly Tag[]>> = {
  'roster.imported': ['Roster', 'Set', 'Placement', 'Room', 'Copy', 'Talk', 'Gradebook'],
  'roster.changed': [
    'MessageList',
    'Call',
    'Course',
    'Roster',
    'Set',
    'Placement',
    'Room',
    'Copy',
    'Talk',
    'Gradebook',
  ],
  'roster.invited': ['Roster', 'Outbox'],
  'set.created': ['Set'],
  'set.changed': ['Set', 'Placement', 'Roster', 'SignUp'],
  'places.changed': ['SignUp'],
  'course.changed': ['Course'],
  'students.placed': [
    'Message',
    'MessageList',
    'Call',
    'Placement',
    'Set',
    'Roster',
    'Room',
    'Activity',
    'Copy',
    'Talk',
    'SignUp',
    'Gradebook',
  ],
  'group.edited': [
    'Message',
    'MessageList',
    'Placement',
    'Roster',
    'Room',
    'Copy',
    'Talk',
    'Desk',
    'Gradebook',
    'SignUp',
  ],
  'audience.changed': ['Audience', 'Activity'],
  'outline.changed': ['Outline'],
  'check.dismissed': ['Check'],
  'check.taken-up': ['Check'],
  'note.written': ['Note'],
  'note.changed': ['Note'],
  'note.removed': ['Note'],
  'note.restored': ['Note'],
  'shelf-file.added': ['Shelf'],
  'shelf-file.changed': ['Shelf'],
  'shelf-file.removed': ['Shelf'],
  'shelf-file.restored': ['Shelf'],
  'message.sent': ['Message', 'MessageList', 'Outbox'],
  'message.removed': ['Message', 'MessageList'],
  'message.restored': ['Message', 'MessageList'],
  'activity.drafted': ['Activity'],
  'activity.edited': ['Activity', 'Room', 'Copy', 'Call', 'Talk', 'Desk', 'Gradebook', 'Mark'],
  'activity.deleted': ['Activity'],
  'activity.restored': ['Activity'],
  'activity.released': ['Activity', 'Room', 'Copy', 'Talk', 'Desk', 'Gradebook', 'MyMarks'],
  'activity.went-live': byItself,
  'activity.opened': byItself,
  'activity.closed': byItself,
  'activity.reach-changed': ['Activity', 'Room', 'Copy', 'Call', 'Talk', 'Desk', 'Gradebook'],
  'activity.withdrawn': ['Activity', 'Room', 'Copy', 'Call', 'Talk', 'Desk', 'Gradebook', 'MyMarks'],
  'extension.granted': ['Activity', 'Room', 'Copy', 'Talk', 'Desk', 'Gradebook', 'Mark'],
  'extension.taken-back': ['Activity', 'Room', 'Copy', 'Talk', 'Desk', 'Gradebook', 'Mark'],
  'call.changed': ['Call'],
  'answers.given': ['Copy', 'Room'],
  'mark.drafted': ['Mark', 'Desk', 'Gradebook'],
  'mark.released': ['Mark', 'Desk', 'Gradebook', 'MyMarks', 'Room'],
  'mark.recalled': ['Mark', 'Desk', 'Gradebook', 'MyMarks', 'Room'],
};
/** Of these the page that did them has shown all that they change before it hears of them. */
const shownByTheAct: ReadonlySet<string> = new Set([
  'note.written',
  'note.changed',
  'note.removed',
  'note.restored',
  'shelf-file.added',
  'shelf-file.changed',
  'shelf-file.removed',
  'shelf-file.restored',
  'message.sent',
  'message.removed',
  'message.restored',
  'students.placed',
  'outline.changed',
  'mark.drafted',
  'mark.released',
  'mark.recalled',
]);
/** No figure of the track counts these. */
const countsNowhere: ReadonlySet<string> = new Set([
  'call.changed',
  'outline.changed',
  'check.dismissed',
  'check.taken-up',
  'note.written',
  'note.changed',
  'note.removed',
  'note.restored',
  'shelf-file.added',
  'shelf-file.changed',
  'shelf-file.removed',
  'shelf-file.restored',
  'message.sent',
  'message.removed',
  'message.restored',
]);
/** Everything else happens inside a copy, whatever its kind. */
const insideACopy: readonly Tag[] = ['Copy', 'Room', 'Desk', 'Gradebook', 'Mark'];
/** What the page that does something inside a copy asks for anew by itself. */
const askedForByTheAct: ReadonlySet<Tag> = new Set(['Copy', 'Post', 'Room', 'Figures']);

/** What is to be asked for again after a change. */
function staleAfter(type: string, isYours: boolean): Tag[] {
  const tags = tagsByChange[type];
  if (tags) return countsNowhere.has(type) ? [...tags] : [...tags, 'Figures'];
  const posts: readonly Tag[] = type.startsWith('post.') ? ['Post'] : [];
  return [...insideACopy, ...posts, 'Figures' as const].filter(
    (tag) => !isYours || !askedForByTheAct.has(tag),
  );
}

/** A line that the server refused is tried again after so long: the session may be there again, or the server. */
const againMs = 5_000;

/** What others change appears without a reload: the server says what kind of thing changed, and the page asks again. */
export function useLiveChanges(courseId: string | null): void {
  const dispatch = useDispatch();
  useEffect(() => {
    if (courseId === null) return;
    const askForAll = () => dispatch(api.util.invalidateTags([...tagTypes]));
    let stream: EventSource;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isFirst = true;
    let isRefused = false;
    const connect = () => {
      stream = new EventSource(apiAddress(`courses/${courseId}/changes?page=${pageId}`));
      stream.addEventListener('change', (event: MessageEvent<string>) => {
        const { type, isYours } = JSON.parse(event.data) as { type: string; isYours: boolean };
        if (isYours && shownByTheAct.has(type)) return;
        dispatch(api.util.invalidateTags([...staleAfter(type, isYours), 'Audit']));
      });
      // After a gap no one knows what was missed.
      stream.addEventListener('open', () => {
        if (!isFirst) askForAll();
        isFirst = isRefused = false;
      });
      // A line that breaks is connected again by the browser; one that is refused is not: the session is over, or the course is not theirs any more,
      // and what the page asks for now says which.
      stream.addEventListener('error', () => {
        if (stream.readyState !== stream.CLOSED) return;
        if (!isFirst && !isRefused) askForAll();
        isRefused = true;
        timer = setTimeout(connect, againMs);
      });
    };
    connect();
    return () => {
      clearTimeout(timer);
      stream.close();
    };
  }, [courseId, dispatch]);
}
