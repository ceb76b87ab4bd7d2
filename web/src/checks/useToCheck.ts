import { useMemo } from 'react';
import type { CheckFound } from '@jigsaw/contract/checks';
import { useCourse } from '../course/index.js';
import { useListChecksQuery } from './checksApi.js';
import { namesOf, sayCheck } from './sayCheck.js';

/** Something to check about one activity, in words, with the groups or students that it is about; none: it is about all of it. */
export interface ToCheck {
  readonly says: string;
  readonly at: readonly string[];
}

/** What is to be checked about each activity; nothing as long as it is not known. Students in no group are no matter of one activity. */
export function useToCheck(): ReadonlyMap<string, readonly ToCheck[]> {
  const { course, dates } = useCourse();
  const { data } = useListChecksQuery(course.id, { refetchOnMountOrArgChange: true });
  return useMemo(() => {
    const said = new Map<string, ToCheck[]>();
    if (!data) return said;
    const names = namesOf(data);
    for (const { found, dismissed } of data.checks) {
      if (dismissed !== null) continue;
      const toCheck = { says: sayCheck(found, names, dates).title, at: concernedBy(found) };
      for (const id of activitiesOf(found)) said.set(id, [...(said.get(id) ?? []), toCheck]);
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

function concernedBy(found: CheckFound): readonly string[] {
  switch (found.code) {
    case 'due-together':
      return [...found.inGroups, ...found.students.named];
    case 'due-before-open':
      return 'groupId' in found.who ? [found.who.groupId] : [found.who.enrolmentId];
    case 'groups-left-out':
    case 'line-for-no-one':
    case 'cannot-be-done':
      return found.groupIds;
    default:
      return [];
  }
}
