import type { ActivityView } from '@jigsaw/contract/release';
import { keyedBy } from '@jigsaw/core/lists';
import { CheckLines, isAbout, useListChecksQuery } from '../checks/index.js';
import { useCourse } from '../course/index.js';
import { CheckFix } from './CheckFix.js';
import { useListActivitiesQuery } from './releaseApi.js';

/** What there is to check about the activity that is open, each with what mends it. */
export function ToCheckHere({ activity }: { readonly activity: ActivityView }) {
  const { course } = useCourse();
  const { data: list } = useListChecksQuery(course.id, { refetchOnMountOrArgChange: true });
  const shown = (list?.checks ?? []).filter(
    ({ found, dismissed }) => dismissed === null && isAbout(found, activity.id),
  );
  // Only what is mended in two activities at once asks for the others.
  const others = useListActivitiesQuery(course.id, { skip: shown.length === 0 });
  if (!list || shown.length === 0) return null;
  const byId = keyedBy(others.data?.activities ?? [], ({ id }) => id as string);
  return (
    <CheckLines
      label="To check here"
      list={list}
      shown={shown}
      fixOf={(found, names) => (
        <CheckFix
          found={found}
          names={names}
          activityOf={(id) => (id === activity.id ? activity : byId.get(id))}
          here={activity.id}
        />
      )}
    />
  );
}
