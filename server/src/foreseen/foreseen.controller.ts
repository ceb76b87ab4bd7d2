import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId } from '@jigsaw/contract/common';
import { Foreseen, Planned } from '@jigsaw/contract/foreseen';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { ForeseenService } from './foreseen.service.js';

@ApiTags('foreseen')
@Controller('courses/:courseId/foreseen')
export class ForeseenController {
  constructor(private readonly foreseen: ForeseenService) {}

  @Endpoint('POST ', {
    id: 'foreseeSight',
    does: 'What an act would change in who sees what; changes nothing',
    body: Planned,
    largestKb: 1000,
    answer: Foreseen,
  })
  foresee(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(Planned) planned: Planned,
  ): Promise<Foreseen> {
    return this.foreseen.foresee(person, courseId, planned);
  }
}
