import { Navigate } from 'react-router';
import { ProblemStrip, unshown } from '../api/index.js';
import { ButtonLink, Empty, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListGroupSetsQuery } from './setsApi.js';

/** The station opens where someone is unplaced, else on the first set; without one it says how to begin. */
export function SetsPage() {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  if (unshown(sets) !== undefined)
    return <ProblemStrip of={sets.error} onRetry={() => void sets.refetch()} />;
  if (!sets.data) return <Waiting what="the group sets" />;
  const first = sets.data.sets.find((set) => set.unplaced > 0 && !set.signUp) ?? sets.data.sets[0];
  if (first) return <Navigate to={first.id} replace />;
  return (
    <Empty
      title="No groups yet"
      action={
        course.role === 'instructor' ? (
          <ButtonLink kind="main" to="new">
            Create group set
          </ButtonLink>
        ) : undefined
      }
    >
      A group set divides the class for one purpose, such as lab benches, project teams or sections.
    </Empty>
  );
}
