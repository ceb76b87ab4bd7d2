import { Controller, Query, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';

import { CourseId, DateTime, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/contract/common';
import {
  AwaitPlace,
  BoardView,
  MovesOf,
  PlaceRequest,
  PlaceResult,
  PlacesOf,
  SignUpList,
  SignUpView,
  TakePlace,
} from '@jigsaw/contract/placing';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { sendExport } from '../platform/sendExport.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import { BoardService } from './board.service.js';
import { SignUpService } from './signUp.service.js';

@ApiTags('placing')
@Controller()
export class PlacingController {
  constructor(
    private readonly boards: BoardService,
    private readonly signUps: SignUpService,
  ) {}

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

  @Endpoint('GET /sets/:setId/moves', {
    id: 'readMoves',
    does: 'The moves in this set and who made them, the latest first (?before=the moment of an earlier answer)',
    answer: MovesOf,
  })
  moves(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Query('before') before: unknown,
  ): Promise<MovesOf> {
    const moment = DateTime.optional().safeParse(before);
    if (!moment.success) throw problems.invalidInput('Say before which moment.');
    return this.boards.moves(person, setId, moment.data === undefined ? null : new Date(moment.data));
  }

  @Endpoint('POST /sets/:setId/place', {
    id: 'placeStudents',
    does: 'Place, move, swap or pull out students in one act',
    body: PlaceRequest,
    largestKb: 1000,
    answer: PlaceResult,
  })
  place(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(PlaceRequest) request: PlaceRequest,
  ): Promise<PlaceResult> {
    return this.boards.place(person, setId, request);
  }

  @Endpoint('GET /courses/:courseId/roster/:enrolmentId/places', {
    id: 'readPlaces',
    does: 'The groups a person has been in, and who placed them',
    answer: PlacesOf,
  })
  placesOf(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @IdParam('enrolmentId', EnrolmentId) enrolmentId: ids.EnrolmentId,
  ): Promise<PlacesOf> {
    return this.boards.placesOf(person, courseId, enrolmentId);
  }

  @Endpoint('GET /sets/:setId/groups.csv', {
    id: 'exportGroups',
    does: 'Everyone with their group in this set, as CSV',
  })
  async file(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Res() response: Response,
  ): Promise<void> {
    sendExport(response, 'groups.csv', 'text/csv; charset=utf-8', await this.boards.file(person, setId));
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
    does: 'Join a group, move to another or leave one',
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

  @Endpoint('PUT /sets/:setId/sign-up/awaited/:groupId', {
    id: 'awaitPlace',
    does: 'Be told by mail when a place in this group is free',
    body: AwaitPlace,
    answer: SignUpView,
  })
  awaitPlace(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(AwaitPlace) { isAwaited }: AwaitPlace,
  ): Promise<SignUpView> {
    return this.signUps.await(person, setId, groupId, isAwaited);
  }
}
