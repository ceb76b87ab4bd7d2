import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId } from '@jigsaw/contract/common';
import { PracticeView, RestorePractice, StartPractice } from '@jigsaw/contract/practice';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { PracticeService } from './practice.service.js';

@ApiTags('practice')
@Controller('courses/:courseId/practice')
export class PracticeController {
  constructor(private readonly practice: PracticeService) {}

  @Endpoint('GET ', {
    id: 'readPractice',
    does: 'Whether anything was practised that is not cleared',
    answer: PracticeView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<PracticeView> {
    return this.practice.read(person, courseId);
  }

  @Endpoint('POST ', {
    id: 'startPractice',
    does: 'Make ready what a group has, so that the practice student can act in it',
    body: StartPractice,
    largestKb: 2,
    answer: PracticeView,
  })
  start(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(StartPractice) { groupId }: StartPractice,
  ): Promise<PracticeView> {
    return this.practice.start(person, courseId, groupId);
  }

  @Endpoint('POST clear', {
    id: 'clearPractice',
    does: 'Clear everything that was practised in a course',
    answer: PracticeView,
  })
  clear(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<PracticeView> {
    return this.practice.clear(person, courseId);
  }

  @Endpoint('POST restore', {
    id: 'restorePractice',
    does: 'Restore what was cleared last, as long as nothing was practised since',
    body: RestorePractice,
    largestKb: 2,
    answer: PracticeView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(RestorePractice) { round }: RestorePractice,
  ): Promise<PracticeView> {
    return this.practice.restore(person, courseId, round);
  }
}
