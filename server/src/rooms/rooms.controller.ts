import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ActivityId, CopyId, CourseId, Done, GroupId } from '@jigsaw/contract/common';
import {
  AnswerStop,
  CopiesOfActivity,
  CopyHead,
  Lately,
  LastWritten,
  RoomLines,
  RoomList,
  RoomView,
} from '@jigsaw/contract/rooms';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { CopyHeads } from './copyHeads.service.js';
import { LatelyService } from './lately.service.js';
import { LastWrittenService } from './lastWritten.service.js';
import { RoomLinesService } from './roomLines.service.js';
import { RoomsService } from './rooms.service.js';
import { StopsService } from './stops.service.js';

@ApiTags('rooms')
@Controller()
export class RoomsController {
  constructor(
    private readonly rooms: RoomsService,
    private readonly roomLines: RoomLinesService,
    private readonly stops: StopsService,
    private readonly latelyService: LatelyService,
    private readonly lastWrittenService: LastWrittenService,
    private readonly heads: CopyHeads,
  ) {}

  @Endpoint('GET /courses/:courseId/rooms', {
    id: 'listRooms',
    does: "The rooms of one's own groups, with members, activities and what is new",
    answer: RoomList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RoomList> {
    return this.rooms.list(person, courseId);
  }

  @Endpoint('GET /courses/:courseId/room-lines', {
    id: 'listRoomLines',
    does: 'For staff: every room in a line, with what needs someone, is unread and last written',
    answer: RoomLines,
  })
  lines(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RoomLines> {
    return this.roomLines.list(person, courseId);
  }

  @Endpoint('PUT /courses/:courseId/stops', {
    id: 'answerStop',
    does: 'For staff: what a room needs is done, put off or not needed, for oneself; or is open again',
    body: AnswerStop,
    answer: Done,
  })
  answer(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(AnswerStop) request: AnswerStop,
  ): Promise<Done> {
    return this.stops.answer(person, courseId, request);
  }

  @Endpoint('GET /groups/:groupId/room', {
    id: 'readRoom',
    does: "For staff: one group's room, as its members have it",
    answer: RoomView,
  })
  room(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
  ): Promise<RoomView> {
    return this.rooms.room(person, groupId);
  }

  @Endpoint('GET /groups/:groupId/last-written', {
    id: 'readLastWritten',
    does: "What was written last in a group's room, and what of it is new",
    answer: LastWritten,
  })
  latest(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
  ): Promise<LastWritten> {
    return this.lastWrittenService.read(person, groupId);
  }

  @Endpoint('GET /groups/:groupId/lately', {
    id: 'readLately',
    does: 'For staff: what each member of a group wrote lately',
    answer: Lately,
  })
  lately(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
  ): Promise<Lately> {
    return this.latelyService.read(person, groupId);
  }

  @Endpoint('GET /activities/:activityId/copies', {
    id: 'findCopies',
    does: "Where a link to an activity leads: one's own group's copy, for staff those of all",
    answer: CopiesOfActivity,
  })
  copies(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
  ): Promise<CopiesOfActivity> {
    return this.rooms.copiesOf(person, activityId);
  }

  @Endpoint('GET /copies/:copyId', {
    id: 'readCopy',
    does: "One group's copy: what was set, who has it and until when",
    answer: CopyHead,
  })
  head(@CurrentPerson() person: SignedIn, @IdParam('copyId', CopyId) copyId: ids.CopyId): Promise<CopyHead> {
    return this.heads.head(person, copyId);
  }
}
