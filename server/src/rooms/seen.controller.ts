import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CopyId } from '@jigsaw/contract/common';
import { MarkSeen, SeenAnswer } from '@jigsaw/contract/rooms';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { News } from './news.service.js';

@ApiTags('rooms')
@Controller()
export class SeenController {
  constructor(private readonly news: News) {}

  @Endpoint('POST /copies/:copyId/seen', {
    id: 'markSeen',
    does: 'One has seen these things, or all that is there',
    body: MarkSeen,
    answer: SeenAnswer,
  })
  see(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(MarkSeen) request: MarkSeen,
  ): Promise<SeenAnswer> {
    return this.news.see(person, copyId, request);
  }
}
