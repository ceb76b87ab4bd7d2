import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';

interface NamedMember {
  readonly groupId: GroupId;
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly reading: string | null;
  readonly isLeader: boolean;
  readonly from: Date;
}

/** Who is in these groups, by name. */
export const membersByName = (
  manager: EntityManager,
  groupIds: readonly GroupId[],
): Promise<readonly NamedMember[]> =>
  manager.query<NamedMember[]>(
    `SELECT s."groupId", p."enrolmentId", p."name", p."reading", s."isLeader", s."from"
       FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId"
      WHERE s."groupId" = ANY($1) ORDER BY p."name"`,
    [groupIds],
  );
