import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { ActivityId } from '@jigsaw/core/ids';
import { problems } from '../platform/problems.js';
import { ActivityRow } from './release.rows.js';

/** Acts on one activity take turns from here to the end of the transaction.
 * @throws not-found for one that was deleted before its turn came. */
export async function lockActivity(manager: EntityManager, activityId: ActivityId): Promise<ActivityRow> {
  const activity = await manager.findOne(ActivityRow, {
    where: { id: activityId, deletedAt: IsNull() },
    lock: { mode: 'pessimistic_write' },
  });
  if (!activity) throw problems.notFound();
  return activity;
}
