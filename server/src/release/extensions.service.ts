import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { z } from 'zod';
import type { ActivityView, GrantExtension } from '@jigsaw/contract/release';
import type { ActivityId, GroupId } from '@jigsaw/core/ids';
import type { Concerns } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { groupTags, setOfCourse } from '../sets/index.js';
import { ActivitiesService, lockActivity } from './activities.service.js';
import { hearersOf } from './hearers.js';
import { CopyRow, ExtensionRow, ReleaseRow } from './release.rows.js';

/** More time for one group. */
@Injectable()
export class ExtensionsService {
  constructor(
    private readonly unitOfWork: UnitOfWork,
    private readonly activities: ActivitiesService,
  ) {}

  /** Gives one group longer, or its time back (null). */
  async extend(
    person: SignedIn,
    activityId: ActivityId,
    groupId: GroupId,
    grant: z.output<typeof GrantExtension> | null,
  ): Promise<ActivityView> {
    await this.activities.forStaff(person, activityId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      // Two who grant the same group at one moment take turns.
      const activity = await lockActivity(manager, activityId);
      const tag = (await groupTags(manager, [groupId])).get(groupId);
      if (!tag) throw problems.notFound();
      await setOfCourse(manager, tag.setId, activity.courseId);
      if (grant && activity.opens && Date.parse(grant.due) < activity.opens.getTime())
        throw problems.invalidInput('This is before it opens. Choose a later time.', {
          issues: [{ path: 'due', message: 'Choose a later time.' }],
        });
      const before = await manager.findOneBy(ExtensionRow, { activityId, groupId });
      if (grant)
        await manager.save(ExtensionRow, {
          activityId,
          groupId,
          due: new Date(grant.due),
          closes: grant.closes === null ? null : new Date(grant.closes),
          reason: grant.reason,
          grantedBy: person.id,
          grantedAt: now,
        });
      else await manager.delete(ExtensionRow, { activityId, groupId });
      await record({
        type: grant ? 'extension.granted' : 'extension.taken-back',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: activityId,
        facts: { groupId, from: before?.due.toISOString() ?? null, to: grant?.due ?? null },
        ...(await this.hearersIn(manager, activityId, groupId)),
      });
      return this.activities.view(manager, activity);
    });
  }

  /** Anyone who may read the group's copy; while there is none, staff. */
  private async hearersIn(
    manager: EntityManager,
    activityId: ActivityId,
    groupId: GroupId,
  ): Promise<Partial<Concerns>> {
    const release = await manager.findOneBy(ReleaseRow, { activityId });
    const copy = release && (await manager.findOneBy(CopyRow, { releaseId: release.id, groupId }));
    return copy ? hearersOf({ release, copy }) : { staff: 'release' };
  }
}
