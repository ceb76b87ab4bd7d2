import type { EntityManager } from 'typeorm';
import type { Author } from '@jigsaw/contract/course';
import type { With } from '@jigsaw/contract/messages';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { authorsById } from '../course/index.js';
import { groupTags } from '../sets/index.js';

/** Which threads someone reads, as a condition in SQL on `t`, a thread; `readsThread` of the core for many at once, and held equal to it by a test. The
 * parameters come first in the statement. */
export function readable(viewer: Viewer): { readonly sql: string; readonly parameters: readonly unknown[] } {
  const isStaff = may(viewer.role, 'write-to-people');
  const groupIds = isStaff ? viewer.leads : viewer.groups.map(({ groupId }) => groupId);
  const sql = `t."courseId" = $1 AND (t."withId" = $2 OR ${isStaff ? ofStaff(viewer) : `t."groupId" = ANY($3)`})`;
  return {
    sql,
    parameters: [viewer.courseId, viewer.enrolmentId, groupIds],
  };
}

const isWithStudent = `EXISTS (SELECT 1 FROM "author" w WHERE w."enrolmentId" = t."withId" AND w."role" = 'student')`;
const sitsInTheirs = `EXISTS (SELECT 1 FROM "seat" s WHERE s."enrolmentId" = t."withId" AND s."groupId" = ANY($3))`;
function ofStaff({ role, seesOnlyLed }: Viewer): string {
  const ofGroups = seesOnlyLed ? `t."groupId" = ANY($3)` : `t."groupId" IS NOT NULL`;
  // An instructor's own groups decide nothing; named all the same, since each parameter has to be.
  const ofStudents = role === 'instructor' ? `($3::uuid[] IS NOT NULL AND ${isWithStudent})` : `(${isWithStudent} AND ${sitsInTheirs})`; // prettier-ignore
  return `${ofGroups} OR (t."withId" IS NOT NULL AND (t."startedBy" = $2 OR ${ofStudents}))`;
}

/** New to someone, as a condition on `t`, a thread, and `m`, one of its messages: others wrote it after what they saw last. What other staff write to students
 * is new to the students alone. `$2` is who reads. */
export const isNewTo = ({ role }: Viewer): string => `
  m."removedAt" IS NULL AND m."authorId" <> $2
    AND m."number" > coalesce((SELECT e."upTo" FROM "message_seen" e WHERE e."threadId" = t."id" AND e."enrolmentId" = $2), 0)
    ${role === 'student' ? '' : `AND (NOT m."isByStaff" OR t."withId" IS NOT DISTINCT FROM $2)`}`;

interface Between {
  readonly withId: EnrolmentId | null;
  readonly groupId: GroupId | null;
}

/** Says who threads are with, and who wrote in them. Two statements for any number. */
export async function peopleIn(
  manager: EntityManager,
  { enrolmentId }: Viewer,
  threads: readonly Between[],
  authors: readonly EnrolmentId[],
): Promise<{ readonly withOf: (thread: Between) => With; readonly author: (id: EnrolmentId) => Author }> {
  const named = threads.flatMap(({ withId }) => withId ?? []);
  const author = await authorsById(manager, [...named, ...authors], enrolmentId);
  const tags = await groupTags(manager, threads.map(({ groupId }) => groupId)); // prettier-ignore
  const withOf = ({ withId, groupId }: Between): With =>
    withId === null
      ? { kind: 'group', group: sure(tags.get(sure(groupId))) }
      : { kind: 'person', person: author(withId) };
  return { withOf, author };
}
