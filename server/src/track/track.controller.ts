import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId } from '@jigsaw/contract/common';
import { Figures } from '@jigsaw/contract/track';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { TrackService } from './track.service.js';

@ApiTags('track')
@Controller('courses')
export class TrackController {
  constructor(private readonly track: TrackService) {}

  @Endpoint('GET /:courseId/figures', {
    id: 'readFigures',
    does: 'The live figures of the track',
    answer: Figures,
  })
  figures(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<Figures> {
    return this.track.figures(person, courseId);
  }
}
