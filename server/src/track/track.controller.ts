import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId } from '@jigsaw/contract/common';
import { Figures, Home } from '@jigsaw/contract/track';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { HomeService } from './home.service.js';
import { TrackService } from './track.service.js';

@ApiTags('track')
@Controller()
export class TrackController {
  constructor(
    private readonly track: TrackService,
    private readonly homeService: HomeService,
  ) {}

  @Endpoint('GET /home', {
    id: 'readHome',
    does: 'What needs one in each of one’s courses, and what one owes in all of them',
    answer: Home,
  })
  home(@CurrentPerson() person: SignedIn): Promise<Home> {
    return this.homeService.read(person);
  }

  @Endpoint('GET /courses/:courseId/figures', {
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
