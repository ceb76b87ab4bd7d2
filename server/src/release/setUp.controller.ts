import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';

import type { z } from 'zod';
import { CourseId, GroupSetId } from '@jigsaw/contract/common';
import { CopySet, CreateGroupSet, DeriveExperts, MadeGroupSet } from '@jigsaw/contract/setUp';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { SetUpService } from './setUp.service.js';

@ApiTags('sets')
@Controller()
export class SetUpController {
  constructor(private readonly setUp: SetUpService) {}

  @Endpoint('POST /courses/:courseId/sets', {
    id: 'createGroupSet',
    does: 'Create group set with its groups',
    body: CreateGroupSet,
    largestKb: 1200,
    answer: MadeGroupSet,
  })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(CreateGroupSet) draft: z.output<typeof CreateGroupSet>,
  ): Promise<MadeGroupSet> {
    return this.setUp.create(person, courseId, draft);
  }

  @Endpoint('POST /sets/:setId/copies', {
    id: 'copyGroupSet',
    does: 'A set like this one, with or without members',
    body: CopySet,
    answer: MadeGroupSet,
  })
  copy(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(CopySet) request: z.output<typeof CopySet>,
  ): Promise<MadeGroupSet> {
    return this.setUp.copy(person, setId, request);
  }

  @Endpoint('POST /sets/:setId/experts', {
    id: 'deriveExperts',
    does: 'Expert tables that take people of different groups',
    body: DeriveExperts,
    answer: MadeGroupSet,
  })
  deriveExperts(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(DeriveExperts) request: z.output<typeof DeriveExperts>,
  ): Promise<MadeGroupSet> {
    return this.setUp.deriveExperts(person, setId, request);
  }
}
