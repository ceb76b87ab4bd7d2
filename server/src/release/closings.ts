import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { CopyId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { Extension, Instant } from '@jigsaw/core/release';
import { datesFor, momentsOf } from '@jigsaw/core/release';
import { extensionOf, scheduleOf, stateOf } from './facts.js';
import type { ActivityRow, ReleaseRow } from './release.rows.js';
import { CopyRow, ExtensionRow, StudentExtensionRow } from './release.rows.js';

/** Those who have it longer or shorter than everyone: it closes for them at a moment of its own. */
export interface Closing {
  readonly at: Instant;
  readonly copyIds: readonly CopyId[];
  readonly enrolmentIds: readonly EnrolmentId[];
}

/** When a release closes by itself for groups that were granted their own time, and for students who were and whose group’s is another. */
export async function closingsOf(
  manager: EntityManager,
  release: ReleaseRow,
  activity: ActivityRow,
): Promise<readonly Closing[]> {
  const { id: activityId } = activity;
  const ofGroups = await manager.findBy(ExtensionRow, { activityId });
  const ofStudents = await manager.findBy(StudentExtensionRow, { activityId });
  if (ofGroups.length + ofStudents.length === 0) return [];
  const granted = new Map<GroupId | null, Extension>(ofGroups.map((row) => [row.groupId, extensionOf(row)]));
  const closing = (groupId: GroupId | null, own: Extension | null = null): Instant | undefined => {
    const dates = datesFor(scheduleOf(activity), granted.get(groupId) ?? null, own);
    return momentsOf(stateOf(release), dates).find(({ what }) => what === 'closes')?.at;
  };
  const copies = await manager.findBy(CopyRow, { releaseId: release.id, practiceRound: IsNull() });
  const everyones = closing(null);
  const byMoment = groupedBy(
    [
      ...copies.map(({ id, groupId }) => ({
        at: closing(groupId),
        not: everyones,
        copyIds: [id],
        enrolmentIds: [],
      })),
      ...(await seatsOf(manager, ofStudents, copies)).map(({ own, groupId }) => ({
        at: closing(groupId, extensionOf(own)),
        not: closing(groupId),
        copyIds: [],
        enrolmentIds: [own.enrolmentId],
      })),
    ].filter(({ at, not }) => at !== not),
    ({ at }) => at,
  );
  return [...byMoment].flatMap(([at, each]) =>
    at === undefined
      ? []
      : {
          at,
          copyIds: each.flatMap(({ copyIds }) => copyIds),
          enrolmentIds: [...new Set(each.flatMap(({ enrolmentIds }) => enrolmentIds))],
        },
  );
}

/** The groups with a copy in which these students are; null: the one copy for all. */
async function seatsOf(
  manager: EntityManager,
  students: readonly StudentExtensionRow[],
  copies: readonly CopyRow[],
): Promise<readonly { readonly own: StudentExtensionRow; readonly groupId: GroupId | null }[]> {
  if (copies.some(({ groupId }) => groupId === null)) return students.map((own) => ({ own, groupId: null }));
  const seats = await manager.query<{ enrolmentId: EnrolmentId; groupId: GroupId }[]>(
    `SELECT "enrolmentId", "groupId" FROM "seat" WHERE "enrolmentId" = ANY($1) AND "groupId" = ANY($2)`,
    [students.map(({ enrolmentId }) => enrolmentId), copies.map(({ groupId }) => groupId)],
  );
  const byStudent = groupedBy(seats, ({ enrolmentId }) => enrolmentId);
  return students.flatMap((own) =>
    (byStudent.get(own.enrolmentId) ?? []).map(({ groupId }) => ({ own, groupId })),
  );
}
