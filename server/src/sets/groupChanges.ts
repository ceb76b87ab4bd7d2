import type { EntityManager } from 'typeorm';
import type { GroupId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { isStillReferredTo } from '../platform/databaseErrors.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import type { SetHearers } from './setHearers.js';
import type { GroupRow, GroupSetRow } from './sets.rows.js';

/** A group that no one was ever in and nothing hangs on goes without a trace.
 * @throws conflict that names it, if it has to stay. */
export async function removeGroup(
  manager: EntityManager,
  hearers: SetHearers,
  group: GroupRow,
): Promise<void> {
  try {
    await hearers.groupRemoved({ manager, group });
    await manager.query(`DELETE FROM "group_lead" WHERE "groupId" = $1`, [group.id]);
    await manager.query(`DELETE FROM "course_group" WHERE "id" = $1`, [group.id]);
  } catch (error) {
    if (!isStillReferredTo(error)) throw error;
    throw problems.conflict(
      `${group.name} has members, work, notes or files, so it cannot be removed. Lock it to keep people out. Nothing was changed.`,
    );
  }
}

interface ChangedGroups {
  readonly subjectId: string;
  readonly facts: Record<string, unknown>;
  readonly groupIds: readonly GroupId[];
}

/** Tells the groups and all staff; where students choose, everyone, since they see names and places. */
export async function tellOfGroups(
  record: Work['record'],
  person: SignedIn,
  { id, courseId, signUp }: GroupSetRow,
  changed: ChangedGroups,
): Promise<void> {
  await record({ type: 'group.edited', courseId, actorId: person.id, ...changed });
  if (signUp)
    await record({ type: 'places.changed', courseId, actorId: person.id, subjectId: id, isForAll: true });
}
