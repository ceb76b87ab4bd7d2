import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId, GroupId, GroupSetId } from '@jigsaw/contract/common';
import { BoardGroup, BoardView, CreateGroupSet, EditGroup, GroupSetList, GroupSetView, PlaceRequest, PlaceResult } from '@jigsaw/contract/groups';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { GroupsService } from './groups.service.js';

@ApiTags('groups')
@Controller()
export class GroupsController {
  constructor(private readonly groups: GroupsService) {}

  @Endpoint('GET /courses/:courseId/sets', { id: 'listGroupSets', does: 'The group sets of a course', answer: GroupSetList })
  list(@CurrentPerson() person: SignedIn, @IdParam('courseId', CourseId) courseId: ids.CourseId): Promise<GroupSetList> {
    return this.groups.list(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/sets', { id: 'createGroupSet', does: 'Make a group set with its groups', body: CreateGroupSet, answer: GroupSetView })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(CreateGroupSet) draft: CreateGroupSet,
  ): Promise<GroupSetView> {
    return this.groups.create(person, courseId, draft);
  }

  @Endpoint('GET /sets/:setId/board', { id: 'readBoard', does: 'Groups of a set and where each student sits', answer: BoardView })
  board(@CurrentPerson() person: SignedIn, @IdParam('setId', GroupSetId) setId: ids.GroupSetId): Promise<BoardView> {
    return this.groups.board(person, setId);
  }

  @Endpoint('POST /sets/:setId/place', {
    id: 'placeStudents',
    does: 'Place, move, swap or pull out students in one act',
    body: PlaceRequest,
    answer: PlaceResult,
  })
  place(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(PlaceRequest) request: PlaceRequest,
  ): Promise<PlaceResult> {
    return this.groups.place(person, setId, request);
  }

  @Endpoint('PATCH /groups/:groupId', { id: 'editGroup', does: "Change a group's name and capacity", body: EditGroup, answer: BoardGroup })
  edit(@CurrentPerson() person: SignedIn, @IdParam('groupId', GroupId) groupId: ids.GroupId, @Takes(EditGroup) edit: EditGroup): Promise<BoardGroup> {
    return this.groups.edit(person, groupId, edit);
  }
}
