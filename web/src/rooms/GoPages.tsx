import { Link, Navigate, useParams } from 'react-router';
import { styled } from 'styled-components';
import { problemOf, ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Emblem, Empty, hueOfGroup, Waiting } from '../look/index.js';
import { useListSignUpsQuery } from '../placing/index.js';
import { useFindCopiesQuery, useListRoomsQuery } from './roomsApi.js';

const Choices = styled.ul`
  display: grid;
  gap: 8px;
  justify-items: center;
  a {
    display: flex;
    align-items: center;
    gap: 10px;
    min-width: 260px;
    padding: 8px 14px;
    border: var(--hair);
    border-radius: var(--r-2);
    background: var(--surface);
    text-decoration: none;
  }
`;

const nowhere = <Empty title="Nothing here">There is nothing at this address, or you cannot see it.</Empty>;

/** Where a link to an activity leads: each student to their own group's copy, and those who release to where it is written. */
export function GoToActivity() {
  const { course } = useCourse();
  const { activityId = '' } = useParams();
  return course.role === 'instructor' ? (
    <Navigate replace to={`/c/${course.id}/release/${activityId}`} />
  ) : (
    <ToCopy activityId={activityId} />
  );
}

function ToCopy({ activityId }: { readonly activityId: string }) {
  const { course } = useCourse();
  const found = useFindCopiesQuery(activityId);
  if (unshown(found) !== undefined)
    return problemOf(found.error).status === 404 ? (
      nowhere
    ) : (
      <ProblemStrip of={found.error} onRetry={() => void found.refetch()} />
    );
  if (!found.data) return <Waiting what="the activity" />;
  const { copies } = found.data;
  const [first] = copies;
  const at = (copyId: string) => `/c/${course.id}/copies/${copyId}`;
  // A page for staff leads to those of the other groups.
  if (first && (copies.length === 1 || course.role !== 'student'))
    return <Navigate replace to={at(first.copyId)} />;
  return (
    <Empty
      title="You have this in several groups"
      action={
        <Choices>
          {copies.map(({ copyId, group }) => (
            <li key={copyId} style={group ? hueOfGroup(group.number) : undefined}>
              <Link to={at(copyId)}>
                {group && <Emblem number={group.number} size={26} />}
                {group ? `${group.name} (${group.setName})` : 'For all'}
              </Link>
            </li>
          ))}
        </Choices>
      }
    >
      Choose the group to go to.
    </Empty>
  );
}

/** Where a link to a set leads: each student to their own group's room in it, or to where they choose one; staff to its Board. */
export function GoToSet() {
  const { course } = useCourse();
  const { setId = '' } = useParams();
  return course.role === 'student' ? (
    <ToRoom setId={setId} />
  ) : (
    <Navigate replace to={`/c/${course.id}/groups/${setId}`} />
  );
}

function ToRoom({ setId }: { readonly setId: string }) {
  const { course } = useCourse();
  const rooms = useListRoomsQuery(course.id);
  const signUps = useListSignUpsQuery(course.id);
  const failed = [rooms, signUps].find((read) => unshown(read) !== undefined);
  if (failed) return <ProblemStrip of={failed.error} onRetry={() => void failed.refetch()} />;
  if (!rooms.data || !signUps.data) return <Waiting what="your room" />;
  const room = rooms.data.rooms.find(({ group }) => group.setId === setId);
  if (room) return <Navigate replace to={`/c/${course.id}/room/${room.group.id}`} />;
  const mayChoose = signUps.data.signUps.some((each) => each.setId === setId);
  return mayChoose ? <Navigate replace to={`/c/${course.id}/choose/${setId}`} /> : nowhere;
}
