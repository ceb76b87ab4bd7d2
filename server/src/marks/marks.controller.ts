import { Controller, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { ActivityId, CopyId, CourseId, Done, ReleaseId } from '@jigsaw/contract/common';
import { FoldedGradebook, foldGradebook } from '@jigsaw/contract/gradebook';
import {
  DeskList,
  DeskView,
  ForeseeMarks,
  ForeseenMarks,
  MarkUnit,
  MarkView,
  MyMarks,
  MarkedMany,
  MarksSeen,
  ReadyMarks,
  SeenMark,
  SeenUnits,
  SavedMark,
  SaveMark,
} from '@jigsaw/contract/marks';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { sendExport } from '../platform/sendExport.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { DeskService } from './desk.service.js';
import { DeskCounts } from './deskCounts.service.js';
import { ManyMarksService } from './manyMarks.service.js';
import { MarkingService } from './marking.service.js';
import { ForesightService } from './foresight.service.js';
import { GradebookService } from './gradebook.service.js';
import { MyMarksService } from './myMarks.service.js';

@ApiTags('marks')
@Controller()
export class MarksController {
  constructor(
    private readonly desk: DeskService,
    private readonly deskCounts: DeskCounts,
    private readonly marking: MarkingService,
    private readonly myMarks: MyMarksService,
    private readonly gradebook: GradebookService,
    private readonly foresight: ForesightService,
    private readonly many: ManyMarksService,
  ) {}

  @Endpoint('GET /courses/:courseId/desk', {
    id: 'listDesk',
    does: 'What there is to mark in a course',
    answer: DeskList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<DeskList> {
    return this.deskCounts.list(person, courseId);
  }

  @Endpoint('GET /releases/:releaseId/desk', {
    id: 'readDesk',
    does: 'The queue of groups of one release',
    answer: DeskView,
  })
  queue(
    @CurrentPerson() person: SignedIn,
    @IdParam('releaseId', ReleaseId) releaseId: ids.ReleaseId,
  ): Promise<DeskView> {
    return this.desk.queue(person, releaseId);
  }

  @Endpoint('GET /releases/:releaseId/marks/ready', {
    id: 'readReadyMarks',
    does: 'Which sheets of a release can be released, and which suggested marks taken',
    answer: ReadyMarks,
  })
  ready(
    @CurrentPerson() person: SignedIn,
    @IdParam('releaseId', ReleaseId) releaseId: ids.ReleaseId,
  ): Promise<ReadyMarks> {
    return this.many.ready(person, releaseId);
  }

  @Endpoint('POST /releases/:releaseId/marks/release', {
    id: 'releaseManyMarks',
    does: 'Release the marks of several units at once',
    body: SeenUnits,
    answer: MarkedMany,
  })
  releaseMany(
    @CurrentPerson() person: SignedIn,
    @IdParam('releaseId', ReleaseId) releaseId: ids.ReleaseId,
    @Takes(SeenUnits) seen: SeenUnits,
  ): Promise<MarkedMany> {
    return this.many.release(person, releaseId, seen);
  }

  @Endpoint('POST /releases/:releaseId/marks/recall', {
    id: 'recallManyMarks',
    does: 'Recall the marks of several units at once',
    body: SeenUnits,
    answer: MarkedMany,
  })
  recallMany(
    @CurrentPerson() person: SignedIn,
    @IdParam('releaseId', ReleaseId) releaseId: ids.ReleaseId,
    @Takes(SeenUnits) seen: SeenUnits,
  ): Promise<MarkedMany> {
    return this.many.recall(person, releaseId, seen);
  }

  @Endpoint('POST /releases/:releaseId/marks/take-suggested', {
    id: 'takeSuggestedMarks',
    does: 'Accept the suggested marks of several units as drafts',
    body: SeenUnits,
    answer: MarkedMany,
  })
  takeSuggested(
    @CurrentPerson() person: SignedIn,
    @IdParam('releaseId', ReleaseId) releaseId: ids.ReleaseId,
    @Takes(SeenUnits) seen: SeenUnits,
  ): Promise<MarkedMany> {
    return this.many.takeSuggested(person, releaseId, seen);
  }

  @Endpoint('POST /activities/:activityId/marks-foreseen', {
    id: 'foreseeMarks',
    does: 'Whose given marks a change of an activity would touch; asked, not done',
    body: ForeseeMarks,
    largestKb: 1200,
    answer: ForeseenMarks,
  })
  foresee(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(ForeseeMarks) asked: ForeseeMarks,
  ): Promise<ForeseenMarks> {
    return this.foresight.foresee(person, activityId, asked);
  }

  @Endpoint('GET /copies/:copyId/marks/:unit', {
    id: 'readMark',
    does: "The marking sheet of the group ('group') or of one student",
    answer: MarkView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('unit', MarkUnit) unit: MarkUnit,
  ): Promise<MarkView> {
    return this.desk.read(person, copyId, unit);
  }

  @Endpoint('PUT /copies/:copyId/marks/:unit', {
    id: 'saveMark',
    does: 'Save a marking sheet as it is typed',
    body: SaveMark,
    largestKb: 1000,
    answer: SavedMark,
  })
  save(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('unit', MarkUnit) unit: MarkUnit,
    @Takes(SaveMark) sheet: SaveMark,
  ): Promise<SavedMark> {
    return this.marking.save(person, copyId, unit, sheet);
  }

  @Endpoint('POST /copies/:copyId/marks/:unit/release', {
    id: 'releaseMarks',
    does: 'Release a mark to those who are credited with the work',
    body: SeenMark,
    answer: SavedMark,
  })
  release(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('unit', MarkUnit) unit: MarkUnit,
    @Takes(SeenMark) seen: SeenMark,
  ): Promise<SavedMark> {
    return this.marking.release(person, copyId, unit, seen);
  }

  @Endpoint('POST /copies/:copyId/marks/:unit/recall', {
    id: 'recallMarks',
    does: 'Recall released marks',
    body: SeenMark,
    answer: SavedMark,
  })
  recall(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('unit', MarkUnit) unit: MarkUnit,
    @Takes(SeenMark) seen: SeenMark,
  ): Promise<SavedMark> {
    return this.marking.recall(person, copyId, unit, seen);
  }

  @Endpoint('GET /courses/:courseId/my-marks', {
    id: 'readMyMarks',
    does: "One's own released marks",
    answer: MyMarks,
  })
  mine(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<MyMarks> {
    return this.myMarks.read(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/my-marks/seen', {
    id: 'markSeenMarks',
    does: 'One has looked at these marks',
    body: MarksSeen,
    answer: Done,
  })
  async see(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(MarksSeen) seen: MarksSeen,
  ): Promise<Done> {
    await this.myMarks.see(person, courseId, seen);
    return { done: true };
  }

  @Endpoint('GET /courses/:courseId/gradebook', {
    id: 'readGradebook',
    does: 'Students by assignments, for staff',
    answer: FoldedGradebook,
  })
  async readGradebook(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<FoldedGradebook> {
    return foldGradebook(await this.gradebook.read(person, courseId));
  }

  @Endpoint('GET /courses/:courseId/gradebook.csv', { id: 'exportGradebook', does: 'Released marks as CSV' })
  async exportGradebook(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Res() response: Response,
  ): Promise<void> {
    sendExport(
      response,
      'gradebook.csv',
      'text/csv; charset=utf-8',
      await this.gradebook.csv(person, courseId),
    );
  }
}
