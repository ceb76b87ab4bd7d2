import { Navigate } from 'react-router';
import { ProblemStrip, unshown } from '../api/index.js';
import { ButtonLink, Empty, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListDeskQuery } from './marksApi.js';

/** The station opens where marking is needed most: the first activity with something to mark. */
export function DeskListPage() {
  const { course } = useCourse();
  const desk = useListDeskQuery(course.id);
  if (unshown(desk) !== undefined)
    return <ProblemStrip of={desk.error} onRetry={() => void desk.refetch()} />;
  if (!desk.data) return <Waiting what="what there is to mark" />;
  const first = desk.data.activities.find((activity) => activity.toMark > 0) ?? desk.data.activities[0];
  if (first) return <Navigate to={first.releaseId} replace />;
  return (
    <Empty title="Nothing to mark yet" action={<ButtonLink to="../release">Go to Release</ButtonLink>}>
      Release something with marks, and its groups or students queue here.
    </Empty>
  );
}
