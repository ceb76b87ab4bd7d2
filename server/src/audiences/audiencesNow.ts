import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { AudiencePerson, Resolved, Terms } from '@jigsaw/core/audiences';
import { resolver } from '@jigsaw/core/audiences';
import type { AudienceId, CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { peopleOf } from '../course/index.js';
import { SavedAudienceRow } from './audiences.rows.js';

export interface AudiencesNow {
  readonly rows: readonly SavedAudienceRow[];
  readonly resolve: (terms: Terms) => Resolved;
  /** Of one that was deleted, or never was: no one. */
  readonly saved: (id: AudienceId) => Resolved;
}

/** The saved audiences of a course by their names, and who is in them now; four statements, however many there are.
 * @param only whether this one is in them, and no one else; null: everyone in the course. */
export async function audiencesNow(
  manager: EntityManager,
  courseId: CourseId,
  only: EnrolmentId | null = null,
): Promise<AudiencesNow> {
  const rows = await manager.find(SavedAudienceRow, {
    where: { courseId, deletedAt: IsNull() },
    order: { name: 'ASC' },
  });
  const seats = await manager.query<{ enrolmentId: EnrolmentId; groups: AudiencePerson['groups'] }[]>(
    `SELECT s."enrolmentId", jsonb_agg(jsonb_build_object('groupId', s."groupId", 'setId', s."setId")) AS "groups"
       FROM "seat" s JOIN "course_set" c ON c."setId" = s."setId"
      WHERE c."courseId" = $1 AND ($2::uuid IS NULL OR s."enrolmentId" = $2) GROUP BY 1`,
    [courseId, only],
  );
  const groupsOf = keyedBy(seats, (seat) => seat.enrolmentId);
  const groups = await manager.query<{ groupId: GroupId; setId: GroupSetId }[]>(
    `SELECT "groupId", "setId" FROM "set_group" WHERE "courseId" = $1`,
    [courseId],
  );
  const people = (await peopleOf(manager, courseId, only)).map(
    ({ enrolmentId, role, attributes }): AudiencePerson => ({
      enrolmentId,
      role,
      attributes,
      groups: groupsOf.get(enrolmentId)?.groups ?? [],
    }),
  );
  const audiences = rows.map(({ id, terms }) => ({ id, ...terms }));
  const resolve = resolver({ people, groups, audiences });
  const saved = (audienceId: AudienceId) =>
    resolve({ include: [{ kind: 'audience', audienceId }], exclude: [] });
  return { rows, resolve, saved };
}
