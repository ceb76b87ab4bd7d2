import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId } from '@jigsaw/contract/common';
import { SightlinesView } from '@jigsaw/contract/sightlines';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { SightlinesService } from './sightlines.service.js';

@ApiTags('sightlines')
@Controller('courses/:courseId/sightlines')
export class SightlinesController {
  constructor(private readonly sightlines: SightlinesService) {}

  @Endpoint('GET ', {
    id: 'readSightlines',
    does: 'All that decides who sees what in a course',
    answer: SightlinesView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<SightlinesView> {
    return this.sightlines.read(person, courseId);
  }
}
