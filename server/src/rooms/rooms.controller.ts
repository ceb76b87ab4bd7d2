import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CopyId, CourseId } from '@jigsaw/contract/common';
import { CopyHead, RoomList } from '@jigsaw/contract/rooms';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { CopyHeads } from './copyHeads.service.js';
import { RoomsService } from './rooms.service.js';

@ApiTags('rooms')
@Controller()
export class RoomsController {
  constructor(
    private readonly rooms: RoomsService,
    private readonly heads: CopyHeads,
  ) {}

  @Endpoint('GET /courses/:courseId/rooms', {
    id: 'listRooms',
    does: 'The rooms one may enter, with members, activities and what is new',
    answer: RoomList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RoomList> {
    return this.rooms.list(person, courseId);
  }

  @Endpoint('GET /copies/:copyId', {
    id: 'readCopy',
    does: "One group's copy: what was set, for whom and until when",
    answer: CopyHead,
  })
  head(@CurrentPerson() person: SignedIn, @IdParam('copyId', CopyId) copyId: ids.CopyId): Promise<CopyHead> {
    return this.heads.head(person, copyId);
  }
}
