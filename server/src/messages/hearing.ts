import type { EntityManager } from 'typeorm';
import type { Viewer } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, PersonId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { readsThread } from '@jigsaw/core/messages';
import type { ThreadFacts } from '@jigsaw/core/messages';
import type { Viewers } from '../course/index.js';

export interface ThreadWith {
  readonly withId: EnrolmentId | null;
  readonly groupId: GroupId | null;
  readonly startedBy: EnrolmentId;
}
export interface Hearers {
  readonly students: readonly EnrolmentId[];
  readonly staff: readonly EnrolmentId[];
}

/** Says who reads a thread now, of everyone in the course. Two statements for any number of threads. */
export async function hearersIn(
  manager: EntityManager,
  viewers: Viewers,
  courseId: CourseId,
): Promise<(thread: ThreadWith) => Hearers> {
  const everyone = (await viewers.everyone(manager, courseId)).map(({ viewer }) => viewer);
  const byId = keyedBy(everyone, (viewer) => viewer.enrolmentId);
  const staff = everyone.filter(({ role }) => role !== 'student');
  const membersOf = new Map<GroupId, Viewer[]>();
  for (const viewer of everyone)
    for (const { groupId } of viewer.groups)
      membersOf.set(groupId, [...(membersOf.get(groupId) ?? []), viewer]);
  return ({ withId, groupId, startedBy }) => {
    const person = withId === null ? undefined : byId.get(withId);
    const facts = factsOf({ withId, groupId, startedBy }, person);
    const own = person ? [person] : groupId === null ? [] : (membersOf.get(groupId) ?? []);
    const reads = (viewer: Viewer) => readsThread(viewer, facts);
    const students = own.filter(({ role }) => role === 'student').filter(reads);
    return { students: students.map(idOf), staff: staff.filter(reads).map(idOf) };
  };
}
const idOf = ({ enrolmentId }: Viewer) => enrolmentId;

/** What decides who reads a thread.
 * @param person who it is with; undefined: a group, or someone who is not in the course. */
export const factsOf = (
  { withId, groupId, startedBy }: ThreadWith,
  person: Viewer | undefined,
): ThreadFacts =>
  withId === null
    ? { withId, groupId: groupId as GroupId, startedBy }
    : {
        withId,
        isWithStudent: person?.role === 'student',
        theirGroups: person?.groups.map((group) => group.groupId) ?? [],
        startedBy,
      };

/** Where these people are written to. */
export const addressesOf = (
  manager: EntityManager,
  courseId: CourseId,
  enrolmentIds: Iterable<EnrolmentId>,
): Promise<
  readonly {
    readonly enrolmentId: EnrolmentId;
    readonly personId: PersonId;
    readonly toName: string;
    readonly toAddress: string;
  }[]
> =>
  manager.query(
    `SELECT "enrolmentId", "personId", "name" AS "toName", "email" AS "toAddress" FROM "course_person"
      WHERE "courseId" = $1 AND "leftAt" IS NULL AND "enrolmentId" = ANY($2) ORDER BY "name", "enrolmentId"`,
    [courseId, [...enrolmentIds]],
  );
