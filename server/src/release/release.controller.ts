import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { z } from 'zod';
import { ActivityId, CourseId, GroupSetId } from '@jigsaw/contract/common';
import { ActivityDraft, ActivityList, ActivityView, EditActivity, ReachView, ReleaseRequest } from '@jigsaw/contract/release';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { ReleaseService } from './release.service.js';

@ApiTags('release')
@Controller()
export class ReleaseController {
  constructor(private readonly releases: ReleaseService) {}

  @Endpoint('GET /courses/:courseId/activities', { id: 'listActivities', does: 'Drafts and released activities of a course', answer: ActivityList })
  list(@CurrentPerson() person: SignedIn, @IdParam('courseId', CourseId) courseId: ids.CourseId): Promise<ActivityList> {
    return this.releases.list(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/activities', { id: 'draftActivity', does: 'Begin an assignment as a draft', body: ActivityDraft, answer: ActivityView })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ActivityDraft) draft: z.output<typeof ActivityDraft>,
  ): Promise<ActivityView> {
    return this.releases.create(person, courseId, draft);
  }

  @Endpoint('GET /activities/:activityId', { id: 'readActivity', does: 'One activity with its settings', answer: ActivityView })
  read(@CurrentPerson() person: SignedIn, @IdParam('activityId', ActivityId) activityId: ids.ActivityId): Promise<ActivityView> {
    return this.releases.read(person, activityId);
  }

  @Endpoint('PUT /activities/:activityId', { id: 'editActivity', does: 'Save an activity as it is typed', body: EditActivity, answer: ActivityView })
  edit(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(EditActivity) edit: z.output<typeof EditActivity>,
  ): Promise<ActivityView> {
    return this.releases.edit(person, activityId, edit);
  }

  @Endpoint('POST /activities/:activityId/release', {
    id: 'releaseActivity',
    does: 'Release to a group set, a copy for each group',
    body: ReleaseRequest,
    answer: ActivityView,
  })
  release(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(ReleaseRequest) request: ReleaseRequest,
  ): Promise<ActivityView> {
    return this.releases.release(person, activityId, request);
  }

  @Endpoint('POST /activities/:activityId/withdraw', { id: 'withdrawActivity', does: 'Take a release back', answer: ActivityView })
  withdraw(@CurrentPerson() person: SignedIn, @IdParam('activityId', ActivityId) activityId: ids.ActivityId): Promise<ActivityView> {
    return this.releases.withdraw(person, activityId);
  }

  @Endpoint('GET /activities/:activityId/reach/:setId', { id: 'readReach', does: 'Whom a release to a set reaches, and whom not and why', answer: ReachView })
  reach(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
  ): Promise<ReachView> {
    return this.releases.reach(person, activityId, setId);
  }
}
