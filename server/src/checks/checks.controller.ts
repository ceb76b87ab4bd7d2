import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CheckId, CheckList, DismissCheck } from '@jigsaw/contract/checks';
import { CourseId } from '@jigsaw/contract/common';
import { CheckCount } from '@jigsaw/contract/track';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { ChecksService } from './checks.service.js';

@ApiTags('checks')
@Controller()
export class ChecksController {
  constructor(private readonly checks: ChecksService) {}

  @Endpoint('GET /courses/:courseId/checks', {
    id: 'listChecks',
    does: 'What in a course looks as if it were not meant so, with what was dismissed',
    answer: CheckList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<CheckList> {
    return this.checks.list(person, courseId);
  }

  @Endpoint('GET /courses/:courseId/checks/count', {
    id: 'countChecks',
    does: 'How many things there are to check, less those that were dismissed',
    answer: CheckCount,
  })
  async count(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<CheckCount> {
    return { toCheck: await this.checks.count(person, courseId) };
  }

  @Endpoint('POST /courses/:courseId/checks/dismissals', {
    id: 'dismissCheck',
    does: 'Say why something may stay as it is',
    body: DismissCheck,
    largestKb: 8,
    answer: CheckList,
  })
  dismiss(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(DismissCheck) asked: DismissCheck,
  ): Promise<CheckList> {
    return this.checks.dismiss(person, courseId, asked);
  }

  @Endpoint('DELETE /courses/:courseId/checks/dismissals/:checkId', {
    id: 'takeUpCheck',
    does: 'Check something again that was dismissed',
    answer: CheckList,
  })
  takeUp(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @IdParam('checkId', CheckId) checkId: string,
  ): Promise<CheckList> {
    return this.checks.takeUp(person, courseId, checkId);
  }
}
