import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { z } from 'zod';
import { ActivityId, CourseId, Done, EnrolmentId, GroupId } from '@jigsaw/contract/common';
import {
  ActivityDraft,
  ActivityList,
  ActivityView,
  ChangeMany,
  ChangeReach,
  CollisionList,
  CopyActivity,
  CopyFromCourse,
  EditActivity,
  GrantExtension,
  ManyChanged,
  ReachRequest,
  ReachView,
  ReleaseRequest,
  SeenActivity,
} from '@jigsaw/contract/release';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { ActivitiesService } from './activities.service.js';
import { CollisionsService } from './collisions.service.js';
import { ExtensionsService } from './extensions.service.js';
import { ManyService } from './many.service.js';
import { ReachService } from './reach.service.js';
import { ReleaseService } from './release.service.js';

@ApiTags('release')
@Controller()
export class ReleaseController {
  constructor(
    private readonly activities: ActivitiesService,
    private readonly releases: ReleaseService,
    private readonly extensions: ExtensionsService,
    private readonly reach: ReachService,
    private readonly many: ManyService,
    private readonly collisions: CollisionsService,
  ) {}

  @Endpoint('GET /courses/:courseId/activities', {
    id: 'listActivities',
    does: 'Drafts and released activities of a course',
    answer: ActivityList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<ActivityList> {
    return this.activities.list(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/activities', {
    id: 'draftActivity',
    does: 'Begin an activity as a draft',
    body: ActivityDraft,
    largestKb: 1200,
    answer: ActivityView,
  })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ActivityDraft) draft: z.output<typeof ActivityDraft>,
  ): Promise<ActivityView> {
    return this.activities.create(person, courseId, draft);
  }

  @Endpoint('GET /courses/:courseId/collisions', {
    id: 'listCollisions',
    does: 'Days on which several pieces of work fall due for the same students',
    answer: CollisionList,
  })
  listCollisions(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<CollisionList> {
    return this.collisions.read(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/activities/many', {
    id: 'changeManyActivities',
    does: 'Move the dates of several activities, withdraw, copy, delete or restore them: all or nothing',
    body: ChangeMany,
    answer: ManyChanged,
  })
  changeMany(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ChangeMany) change: ChangeMany,
  ): Promise<ManyChanged> {
    return this.many.change(person, courseId, change);
  }

  @Endpoint('POST /courses/:courseId/activities/from-course', {
    id: 'copyFromCourse',
    does: 'Copy activities of another course as drafts: all or nothing',
    body: CopyFromCourse,
    answer: ManyChanged,
  })
  copyFromCourse(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(CopyFromCourse) asked: CopyFromCourse,
  ): Promise<ManyChanged> {
    return this.many.copyFrom(person, courseId, asked);
  }

  @Endpoint('GET /activities/:activityId', {
    id: 'readActivity',
    does: 'One activity with its settings',
    answer: ActivityView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
  ): Promise<ActivityView> {
    return this.activities.read(person, activityId);
  }

  @Endpoint('PUT /activities/:activityId', {
    id: 'editActivity',
    does: 'Save an activity as it is typed',
    body: EditActivity,
    largestKb: 1200,
    answer: ActivityView,
  })
  edit(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(EditActivity) edit: z.output<typeof EditActivity>,
  ): Promise<ActivityView> {
    return this.activities.edit(person, activityId, edit);
  }

  @Endpoint('POST /activities/:activityId/publish', {
    id: 'publishActivity',
    does: 'Publish the changes to a released activity to its groups',
    body: SeenActivity,
    answer: ActivityView,
  })
  publish(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(SeenActivity) seen: SeenActivity,
  ): Promise<ActivityView> {
    return this.activities.publish(person, activityId, seen);
  }

  @Endpoint('POST /activities/:activityId/discard', {
    id: 'discardChanges',
    does: 'Discard the changes to a released activity that are not published yet',
    body: SeenActivity,
    answer: ActivityView,
  })
  discardChanges(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(SeenActivity) seen: SeenActivity,
  ): Promise<ActivityView> {
    return this.activities.discardChanges(person, activityId, seen);
  }

  @Endpoint('DELETE /activities/:activityId', {
    id: 'deleteActivity',
    does: 'Delete a draft; it can be restored',
    answer: Done,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
  ): Promise<Done> {
    return this.activities.remove(person, activityId);
  }

  @Endpoint('POST /activities/:activityId/restore', {
    id: 'restoreActivity',
    does: 'Restore a deleted draft',
    answer: ActivityView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
  ): Promise<ActivityView> {
    return this.activities.restore(person, activityId);
  }

  @Endpoint('POST /activities/:activityId/release', {
    id: 'releaseActivity',
    does: 'Release to a group set, some of its groups or the class',
    body: ReleaseRequest,
    largestKb: 512,
    answer: ActivityView,
  })
  release(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(ReleaseRequest) request: ReleaseRequest,
  ): Promise<ActivityView> {
    return this.releases.release(person, activityId, request);
  }

  @Endpoint('POST /activities/:activityId/withdraw', {
    id: 'withdrawActivity',
    does: 'Withdraw a release',
    answer: ActivityView,
  })
  withdraw(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
  ): Promise<ActivityView> {
    return this.releases.withdraw(person, activityId);
  }

  @Endpoint('POST /activities/:activityId/copy', {
    id: 'copyActivity',
    does: 'A new draft with the same settings',
    body: CopyActivity,
    answer: ActivityView,
  })
  copy(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(CopyActivity) request: CopyActivity,
  ): Promise<ActivityView> {
    return this.activities.copy(person, activityId, request);
  }

  @Endpoint('PUT /activities/:activityId/reach', {
    id: 'changeReach',
    does: 'Release to other groups of the same set, or change what outsiders learn',
    body: ChangeReach,
    largestKb: 512,
    answer: ActivityView,
  })
  changeReach(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(ChangeReach) request: ChangeReach,
  ): Promise<ActivityView> {
    return this.releases.changeReach(person, activityId, request);
  }

  @Endpoint('POST /activities/:activityId/reach', {
    id: 'foresee',
    does: 'Who such a release would reach, who not, and why; changes nothing',
    body: ReachRequest,
    largestKb: 512,
    answer: ReachView,
  })
  foresee(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(ReachRequest) request: ReachRequest,
  ): Promise<ReachView> {
    return this.reach.read(person, activityId, request);
  }

  @Endpoint('PUT /activities/:activityId/extensions/:groupId', {
    id: 'grantExtension',
    does: 'Give one group longer',
    body: GrantExtension,
    answer: ActivityView,
  })
  extend(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(GrantExtension) grant: z.output<typeof GrantExtension>,
  ): Promise<ActivityView> {
    return this.extensions.extend(person, activityId, { groupId }, grant);
  }

  @Endpoint('DELETE /activities/:activityId/extensions/:groupId', {
    id: 'removeExtension',
    does: 'Back to the date of all',
    answer: ActivityView,
  })
  removeExtension(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
  ): Promise<ActivityView> {
    return this.extensions.extend(person, activityId, { groupId }, null);
  }

  @Endpoint('PUT /activities/:activityId/student-extensions/:enrolmentId', {
    id: 'grantStudentExtension',
    does: 'Give one student longer',
    body: GrantExtension,
    answer: ActivityView,
  })
  extendForStudent(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @IdParam('enrolmentId', EnrolmentId) enrolmentId: ids.EnrolmentId,
    @Takes(GrantExtension) grant: z.output<typeof GrantExtension>,
  ): Promise<ActivityView> {
    return this.extensions.extend(person, activityId, { enrolmentId }, grant);
  }

  @Endpoint('DELETE /activities/:activityId/student-extensions/:enrolmentId', {
    id: 'removeStudentExtension',
    does: 'Back to the date of the group',
    answer: ActivityView,
  })
  removeStudentExtension(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @IdParam('enrolmentId', EnrolmentId) enrolmentId: ids.EnrolmentId,
  ): Promise<ActivityView> {
    return this.extensions.extend(person, activityId, { enrolmentId }, null);
  }
}
