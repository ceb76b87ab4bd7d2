import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { z } from 'zod';
import type { ActivityView, GrantExtension } from '@jigsaw/contract/release';
import type { ActivityId, CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Concerns } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { groupTags, setOfCourse } from '../sets/index.js';
import { ActivitiesService } from './activities.service.js';
import { lockActivity } from './locks.js';
import { hearersOf, hearersOfRelease } from './hearers.js';
import { CopyRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';

/** Who gets more time: one group, or one student wherever they are. */
export type ExtendedTo = { readonly groupId: GroupId } | { readonly enrolmentId: EnrolmentId };

/** More time for one group, or for one student. */
@Injectable()
export class ExtensionsService {
  constructor(
    private readonly unitOfWork: UnitOfWork,
    private readonly activities: ActivitiesService,
  ) {}

  /** Gives longer, or everyone's date back (null). */
  async extend(
    person: SignedIn,
    activityId: ActivityId,
    to: ExtendedTo,
    grant: z.output<typeof GrantExtension> | null,
  ): Promise<ActivityView> {
    await this.activities.forStaff(person, activityId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      // Two who grant the same at one moment take turns.
      const activity = await lockActivity(manager, activityId);
      await this.refuseStranger(manager, activity.courseId, to);
      if (grant && activity.opens && Date.parse(grant.due) < activity.opens.getTime())
        throw problems.invalidInput('This is before it opens. Choose a later time.', {
          issues: [{ path: 'due', message: 'Choose a later time.' }],
        });
      const rows = manager.getRepository<ExtensionRow | StudentExtensionRow>(
        'groupId' in to ? ExtensionRow : StudentExtensionRow,
      );
      const key = { activityId, ...to };
      const before = await rows.findOneBy(key);
      if (grant)
        await rows.save({
          ...key,
          due: new Date(grant.due),
          closes: grant.closes === null ? null : new Date(grant.closes),
          reason: grant.reason,
          grantedBy: person.id,
          grantedAt: now,
        });
      else await rows.delete(key);
      await record({
        type: grant ? 'extension.granted' : 'extension.taken-back',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: activityId,
        facts: { ...to, from: before?.due.toISOString() ?? null, to: grant?.due ?? null },
        ...(await this.hearersIn(manager, activityId, to)),
      });
      return this.activities.view(manager, activity);
    });
  }

  /** @throws not-found for a group of another course, and for anyone who is no student of this one. */
  private async refuseStranger(manager: EntityManager, courseId: CourseId, to: ExtendedTo): Promise<void> {
    if ('groupId' in to) {
      const tag = (await groupTags(manager, [to.groupId])).get(to.groupId);
      if (!tag) throw problems.notFound();
      await setOfCourse(manager, tag.setId, courseId);
      return;
    }
    const isStudent = await manager.query<unknown[]>(
      `SELECT 1 FROM "present_student" WHERE "courseId" = $1 AND "enrolmentId" = $2`,
      [courseId, to.enrolmentId],
    );
    if (isStudent.length === 0) throw problems.notFound();
  }

  /** Anyone who may read the group's copy; of a student's own time that student alone. While there is nothing to read, staff. */
  private async hearersIn(
    manager: EntityManager,
    activityId: ActivityId,
    to: ExtendedTo,
  ): Promise<Partial<Concerns>> {
    const release = await manager.findOneBy(ReleaseRow, { activityId });
    if (!release) return { staff: 'release' };
    if ('enrolmentId' in to) {
      const ofAll = hearersOfRelease(release.id);
      return { copies: { ...sure(ofAll.copies), ownerId: to.enrolmentId } };
    }
    const copy = await manager.findOneBy(CopyRow, {
      releaseId: release.id,
      groupId: to.groupId,
      practiceRound: IsNull(),
    });
    return copy ? hearersOf({ release, copy }) : { staff: 'release' };
  }
}
