import type { EntityManager } from 'typeorm';
import type { TermNames } from '@jigsaw/core/audiences';
import type { CourseId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { peopleOf, toldApart } from '../course/index.js';
import type { PersonNow } from '../course/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';
import type { GroupRow } from '../sets/index.js';
import type { SavedAudienceRow } from './audiences.rows.js';

export interface NamesNow extends TermNames {
  /** By name. */
  readonly people: readonly PersonNow[];
  readonly groups: ReadonlyMap<string, GroupRow>;
}

/** What everything in a course that an audience may name is called. */
export async function namesNow(
  manager: EntityManager,
  courseId: CourseId,
  audiences: readonly SavedAudienceRow[],
): Promise<NamesNow> {
  const sets = await setsOfCourse(manager, courseId);
  const setById = keyedBy(sets, (set) => set.id);
  const groups = await groupsOfSets(
    manager,
    sets.map((set) => set.id),
  );
  const groupById = keyedBy(groups, (group) => group.id);
  const people = await peopleOf(manager, courseId);
  const personById = keyedBy(people, (person) => person.enrolmentId);
  const apart = await toldApart(manager, courseId);
  const audienceById = keyedBy(audiences, (audience) => audience.id);
  return {
    people,
    groups: groupById,
    set: (id) => setById.get(id)?.name ?? null,
    group: (id) => groupById.get(id)?.name ?? null,
    person: (id) => {
      const person = personById.get(id);
      return person ? apart(id, person.name) : null;
    },
    audience: (id) => audienceById.get(id)?.name ?? null,
  };
}
