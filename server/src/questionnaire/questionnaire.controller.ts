import { Controller, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { ActivityId, CopyId } from '@jigsaw/contract/common';
import { AllAnswers, GiveAnswers, QuestionnaireView } from '@jigsaw/contract/questionnaire';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { sendExport } from '../platform/sendExport.js';
import { QuestionnaireService } from './questionnaire.service.js';

@ApiTags('questionnaire')
@Controller()
export class QuestionnaireController {
  constructor(private readonly questionnaires: QuestionnaireService) {}

  @Endpoint('GET /copies/:copyId/answers', {
    id: 'readAnswers',
    does: 'One’s own answers; for staff, those of its members',
    answer: QuestionnaireView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
  ): Promise<QuestionnaireView> {
    return this.questionnaires.read(person, copyId);
  }

  @Endpoint('PUT /copies/:copyId/answers', {
    id: 'giveAnswers',
    does: 'Answer, or change one’s answers',
    body: GiveAnswers,
    largestKb: 250,
    answer: QuestionnaireView,
  })
  give(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(GiveAnswers) request: GiveAnswers,
  ): Promise<QuestionnaireView> {
    return this.questionnaires.give(person, copyId, request);
  }

  @Endpoint('GET /activities/:activityId/answers', {
    id: 'readAllAnswers',
    does: 'Answers of all groups, for staff',
    answer: AllAnswers,
  })
  readAll(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
  ): Promise<AllAnswers> {
    return this.questionnaires.all(person, activityId);
  }

  @Endpoint('GET /activities/:activityId/answers.csv', {
    id: 'exportAnswers',
    does: 'Answers of all groups as CSV',
  })
  async export(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Res() response: Response,
  ): Promise<void> {
    sendExport(
      response,
      'answers.csv',
      'text/csv; charset=utf-8',
      await this.questionnaires.csv(person, activityId),
    );
  }
}
