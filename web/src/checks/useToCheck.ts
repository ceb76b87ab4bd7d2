import { useMemo } from 'react';
import type { CheckFound } from '@jigsaw/contract/checks';
import { useCourse } from '../course/index.js';
import { useListChecksQuery } from './checksApi.js';
import { namesOf, sayCheck } from './sayCheck.js';

/** What is to be checked about each activity, in words; nothing as long as it is not known. Students in no group are no matter of one activity. */
export function useToCheck(): ReadonlyMap<string, readonly string[]> {
  const { course, dates } = useCourse();
  const { data } = useListChecksQuery(course.id, { refetchOnMountOrArgChange: true });
  return useMemo(() => {
    const said = new Map<string, string[]>();
    if (!data) return said;
    const names = namesOf(data);
    for (const { found, dismissed } of data.checks) {
      if (dismissed !== null) continue;
      const { title } = sayCheck(found, names, dates);
      for (const id of activitiesOf(found)) said.set(id, [...(said.get(id) ?? []), title]);
    }
    return said;
  }, [data, dates]);
}

/** Whether it is a matter of that activity. */
export const isAbout = (found: CheckFound, activityId: string): boolean =>
  activitiesOf(found).some((id) => id === activityId);

function activitiesOf(found: CheckFound): readonly string[] {
  if ('activityId' in found) return [found.activityId];
  return found.code === 'due-together' ? found.activityIds : [];
}
