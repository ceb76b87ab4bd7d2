import type { RoomItem, RoomList } from '@jigsaw/contract/rooms';
import { groupedBy } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Empty, Waiting } from '../look/index.js';
import { StudentPage, Things, useListRoomsQuery } from '../rooms/index.js';
import { useReadOutlineQuery } from './outlineApi.js';

/** Only what the student sees, each with where their own work in it stands. */
export function OutlineForStudents() {
  const { course, dates } = useCourse();
  const outline = useReadOutlineQuery(course.id);
  const rooms = useListRoomsQuery(course.id);
  const failed = [outline, rooms].find((read) => unshown(read) !== undefined);
  if (failed) return <ProblemStrip of={failed.error} onRetry={() => void failed.refetch()} />;
  if (!outline.data || !rooms.data) return <Waiting what="the outline" />;
  const itemsOf = groupedBy(itemsIn(rooms.data), (item) => item.activityId);
  const { headings, loose } = outline.data;
  const { locked } = rooms.data;
  const groupOf = new Map(
    rooms.data.rooms.flatMap(({ group, items }) => items.map((item) => [item.copyId, group.name])),
  );
  // Where someone has the same in several groups, each line says whose it is.
  const sayWhose = ({ activityId, copyId }: RoomItem) =>
    (itemsOf.get(activityId) ?? []).length > 1 ? groupOf.get(copyId) : undefined;
  const parts = [
    ...headings.map(({ id, title, activityIds }) => ({ id, title, activityIds })),
    { id: 'loose', title: headings.length > 0 ? 'Everything else' : null, activityIds: loose },
  ]
    .map((part) => ({ ...part, items: part.activityIds.flatMap((id) => itemsOf.get(id) ?? []) }))
    .filter(({ items }) => items.length > 0);
  return (
    <StudentPage>
      <h1>Outline</h1>
      {parts.length + locked.length === 0 && (
        <Empty title="Nothing is here yet">
          What is released to you appears here, in the course’s order.
        </Empty>
      )}
      {parts.map(({ id, title, items }) => (
        <section key={id} aria-label={title ?? 'Activities'}>
          {title !== null && <h2>{title}</h2>}
          <Things label={title ?? 'Activities'} items={items} dates={dates} sayWhose={sayWhose} isInOrder />
        </section>
      ))}
      {locked.length > 0 && (
        <section aria-label="Not open to you">
          <h2>Not open to you</h2>
          <Things label="Not open to you" items={[]} locked={locked} dates={dates} />
        </section>
      )}
    </StudentPage>
  );
}

const itemsIn = ({ rooms, common }: RoomList): readonly RoomItem[] => [
  ...common,
  ...rooms.flatMap((room) => room.items),
];
