import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  AudienceDraft,
  AudienceList,
  AudienceMembers,
  AudienceView,
  EditAudience,
  WhoIsIn,
} from '@jigsaw/contract/audiences';
import { AudienceId, CourseId, Done } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { AudiencesService } from './audiences.service.js';

@ApiTags('audiences')
@Controller()
export class AudiencesController {
  constructor(private readonly audiences: AudiencesService) {}

  @Endpoint('GET /courses/:courseId/audiences', {
    id: 'listAudiences',
    does: 'The saved audiences of a course, with how many they reach',
    answer: AudienceList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<AudienceList> {
    return this.audiences.list(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/audiences/members', {
    id: 'whoIsInAudience',
    does: 'Who would be in such an audience now, and why; changes nothing',
    body: WhoIsIn,
    largestKb: 200,
    answer: AudienceMembers,
  })
  whoIsIn(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(WhoIsIn) asked: WhoIsIn,
  ): Promise<AudienceMembers> {
    return this.audiences.whoIsIn(person, courseId, asked);
  }

  @Endpoint('POST /courses/:courseId/audiences', {
    id: 'createAudience',
    does: 'Save an audience under a name',
    body: AudienceDraft,
    largestKb: 200,
    answer: AudienceView,
  })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(AudienceDraft) draft: AudienceDraft,
  ): Promise<AudienceView> {
    return this.audiences.create(person, courseId, draft);
  }

  @Endpoint('PUT /audiences/:audienceId', {
    id: 'editAudience',
    does: 'Change who is in an audience, or its name',
    body: EditAudience,
    largestKb: 200,
    answer: AudienceView,
  })
  edit(
    @CurrentPerson() person: SignedIn,
    @IdParam('audienceId', AudienceId) audienceId: ids.AudienceId,
    @Takes(EditAudience) edit: EditAudience,
  ): Promise<AudienceView> {
    return this.audiences.edit(person, audienceId, edit);
  }

  @Endpoint('DELETE /audiences/:audienceId', {
    id: 'deleteAudience',
    does: 'Delete an audience that nothing uses; it can be restored',
    answer: Done,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('audienceId', AudienceId) audienceId: ids.AudienceId,
  ): Promise<Done> {
    return this.audiences.remove(person, audienceId);
  }

  @Endpoint('POST /audiences/:audienceId/restore', {
    id: 'restoreAudience',
    does: 'Restore a deleted audience',
    answer: AudienceView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('audienceId', AudienceId) audienceId: ids.AudienceId,
  ): Promise<AudienceView> {
    return this.audiences.restore(person, audienceId);
  }
}
