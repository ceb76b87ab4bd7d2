import { Controller, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { z } from 'zod';
import { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/contract/common';
import {
  BoardGroup,
  BoardGroups,
  DressGroup,
  EditGroup,
  EditGroups,
  FreezeRequest,
  GroupDress,
  GroupSetList,
  GroupSetView,
  LeadGroups,
  PutAwayRequest,
  SetOrder,
  SetRules,
  SetSettings,
} from '@jigsaw/contract/sets';
import {
  BoardView,
  PlaceRequest,
  PlacesOf,
  PlaceResult,
  SignUpList,
  SignUpView,
  TakePlace,
} from '@jigsaw/contract/placing';
import { CopySet, CreateGroupSet, DeriveExperts, MadeGroupSet } from '@jigsaw/contract/setUp';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { BoardService } from './board.service.js';
import { GroupsService } from './groups.service.js';
import { SetsService } from './sets.service.js';
import { SignUpService } from './signUp.service.js';

@ApiTags('groups')
@Controller()
export class GroupsController {
  constructor(
    private readonly sets: SetsService,
    private readonly boards: BoardService,
    private readonly groups: GroupsService,
    private readonly signUps: SignUpService,
  ) {}

  @Endpoint('GET /courses/:courseId/sets', {
    id: 'listGroupSets',
    does: 'The group sets of a course',
    answer: GroupSetList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<GroupSetList> {
    return this.sets.list(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/sets', {
    id: 'createGroupSet',
    does: 'Make a group set with its groups',
    body: CreateGroupSet,
    answer: MadeGroupSet,
  })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(CreateGroupSet) draft: z.output<typeof CreateGroupSet>,
  ): Promise<MadeGroupSet> {
    return this.sets.create(person, courseId, draft);
  }

  @Endpoint('GET /sets/:setId/board', {
    id: 'readBoard',
    does: 'Groups of a set and where each student sits',
    answer: BoardView,
  })
  board(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
  ): Promise<BoardView> {
    return this.boards.read(person, setId);
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
    return this.boards.place(person, setId, request);
  }

  @Endpoint('PATCH /sets/:setId', {
    id: 'changeGroupSet',
    does: 'Change what a set is called and how it is filled',
    body: SetSettings,
    answer: GroupSetView,
  })
  change(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(SetSettings) settings: SetSettings,
  ): Promise<GroupSetView> {
    return this.sets.change(person, setId, settings);
  }

  @Endpoint('PUT /sets/:setId/rules', {
    id: 'changeRules',
    does: 'What deals of this set are to bring about',
    body: SetRules,
    answer: GroupSetView,
  })
  changeRules(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(SetRules) rules: SetRules,
  ): Promise<GroupSetView> {
    return this.sets.changeRules(person, setId, rules);
  }

  @Endpoint('POST /sets/:setId/freeze', {
    id: 'freezeGroupSet',
    does: 'Fix where students sit, or let them choose again',
    body: FreezeRequest,
    answer: GroupSetView,
  })
  freeze(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(FreezeRequest) { isFrozen }: FreezeRequest,
  ): Promise<GroupSetView> {
    return this.sets.freeze(person, setId, isFrozen);
  }

  @Endpoint('GET /courses/:courseId/roster/:enrolmentId/places', {
    id: 'readPlaces',
    does: 'Where somebody has been, by whom',
    answer: PlacesOf,
  })
  placesOf(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @IdParam('enrolmentId', EnrolmentId) enrolmentId: ids.EnrolmentId,
  ): Promise<PlacesOf> {
    return this.boards.placesOf(person, courseId, enrolmentId);
  }

  @Endpoint('POST /sets/:setId/copies', {
    id: 'copyGroupSet',
    does: 'A set like this one, with or without members',
    body: CopySet,
    answer: MadeGroupSet,
  })
  copy(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(CopySet) request: z.output<typeof CopySet>,
  ): Promise<MadeGroupSet> {
    return this.sets.copy(person, setId, request);
  }

  @Endpoint('POST /sets/:setId/experts', {
    id: 'deriveExperts',
    does: 'Expert tables that take people of different groups',
    body: DeriveExperts,
    answer: MadeGroupSet,
  })
  deriveExperts(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(DeriveExperts) request: z.output<typeof DeriveExperts>,
  ): Promise<MadeGroupSet> {
    return this.sets.deriveExperts(person, setId, request);
  }

  @Endpoint('GET /sets/:setId/groups.csv', {
    id: 'exportGroups',
    does: 'Everybody with their group in this set, as CSV',
  })
  async file(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Res() response: Response,
  ): Promise<void> {
    const csv = await this.boards.file(person, setId);
    response
      .set({
        'Content-Type': 'text/csv; charset=utf-8',
        'Content-Disposition': 'attachment; filename="groups.csv"',
        'Cache-Control': 'private, no-store',
      })
      .send(csv);
  }

  @Endpoint('POST /sets/:setId/put-away', {
    id: 'putAwayGroupSet',
    does: 'Put a set out of the way, or bring it back',
    body: PutAwayRequest,
    answer: GroupSetView,
  })
  putAway(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(PutAwayRequest) { isPutAway }: PutAwayRequest,
  ): Promise<GroupSetView> {
    return this.sets.putAway(person, setId, isPutAway);
  }

  @Endpoint('PUT /courses/:courseId/sets/order', {
    id: 'orderGroupSets',
    does: 'In which order the sets are shown',
    body: SetOrder,
    answer: GroupSetList,
  })
  order(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(SetOrder) order: SetOrder,
  ): Promise<GroupSetList> {
    return this.sets.order(person, courseId, order);
  }

  @Endpoint('GET /courses/:courseId/sign-ups', {
    id: 'listSignUps',
    does: 'Sets in which a student chooses a place',
    answer: SignUpList,
  })
  listSignUps(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<SignUpList> {
    return this.signUps.list(person, courseId);
  }

  @Endpoint('GET /sets/:setId/sign-up', {
    id: 'readSignUp',
    does: 'Groups of a set with the places left',
    answer: SignUpView,
  })
  signUp(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
  ): Promise<SignUpView> {
    return this.signUps.view(person, setId);
  }

  @Endpoint('POST /sets/:setId/sign-up', {
    id: 'takePlace',
    does: 'Take a place, move to it, or give one back',
    body: TakePlace,
    answer: SignUpView,
  })
  takePlace(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(TakePlace) { groupId }: TakePlace,
  ): Promise<SignUpView> {
    return this.signUps.take(person, setId, groupId);
  }

  @Endpoint('PATCH /groups/:groupId', {
    id: 'editGroup',
    does: "Change a group's name and capacity",
    body: EditGroup,
    answer: BoardGroup,
  })
  edit(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(EditGroup) edit: EditGroup,
  ): Promise<BoardGroup> {
    return this.groups.edit(person, groupId, edit);
  }

  @Endpoint('PUT /sets/:setId/groups', {
    id: 'editGroups',
    does: 'Change, add and take away groups of a set at once',
    body: EditGroups,
    answer: BoardGroups,
  })
  editAll(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(EditGroups) edit: EditGroups,
  ): Promise<BoardGroups> {
    return this.groups.editAll(person, setId, edit);
  }

  @Endpoint('PUT /sets/:setId/leads', {
    id: 'leadGroups',
    does: 'Who of the staff look after these groups',
    body: LeadGroups,
    answer: BoardGroups,
  })
  lead(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(LeadGroups) request: LeadGroups,
  ): Promise<BoardGroups> {
    return this.groups.lead(person, setId, request);
  }

  @Endpoint('PATCH /groups/:groupId/dress', {
    id: 'dressGroup',
    does: 'What members make of their own group',
    body: DressGroup,
    answer: GroupDress,
  })
  dress(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(DressGroup) dress: DressGroup,
  ): Promise<GroupDress> {
    return this.groups.dress(person, groupId, dress);
  }
}
