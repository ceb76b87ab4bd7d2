import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { api } from '../api/index.js';

type Tag = Parameters<typeof api.util.invalidateTags>[0][number];

/** Which cached facts each kind of change makes old. */
const tagsByChange: Readonly<Record<string, readonly Tag[]>> = {
  'roster.imported': ['Roster', 'Set', 'Placement', 'Room', 'Copy'],
  'roster.changed': ['Roster', 'Set', 'Placement', 'Room', 'Copy'],
  'roster.invited': ['Roster', 'Outbox'],
  'roster.written-to': ['Outbox'],
  'set.created': ['Set'],
  'set.changed': ['Set', 'Placement', 'Roster', 'SignUp'],
  'places.changed': ['SignUp'],
  'students.placed': ['Placement', 'Set', 'Roster', 'Room', 'Activity', 'Copy', 'SignUp'],
  'group.edited': ['Placement', 'Roster', 'Room', 'Copy', 'Desk', 'SignUp'],
  'activity.drafted': ['Activity'],
  'activity.edited': ['Activity', 'Room', 'Copy', 'Desk'],
  'activity.released': ['Activity', 'Room', 'Copy', 'Desk'],
  'activity.reach-changed': ['Activity', 'Room', 'Copy', 'Desk'],
  'activity.withdrawn': ['Activity', 'Room', 'Copy', 'Desk'],
  'extension.granted': ['Activity', 'Room', 'Copy', 'Desk', 'Mark'],
  'extension.taken-back': ['Activity', 'Room', 'Copy', 'Desk', 'Mark'],
  'mark.drafted': ['Desk'],
  'mark.released': ['Desk', 'MyMarks', 'Room'],
  'mark.recalled': ['Desk', 'MyMarks', 'Room'],
};
/** Everything else happens inside a copy, whatever its kind. */
const insideACopy: readonly Tag[] = ['Copy', 'Room', 'Desk', 'Mark'];

/** What others change appears without a reload: the server says what kind of thing changed, and the page asks again. */
export function useLiveChanges(courseId: string | null): void {
  const dispatch = useDispatch();
  useEffect(() => {
    if (courseId === null) return;
    const stream = new EventSource(`/api/courses/${courseId}/changes`);
    stream.addEventListener('change', (event: MessageEvent<string>) => {
      const { type } = JSON.parse(event.data) as { type: string };
      dispatch(api.util.invalidateTags([...(tagsByChange[type] ?? insideACopy), 'Figures']));
    });
    return () => stream.close();
  }, [courseId, dispatch]);
}
