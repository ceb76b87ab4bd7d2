import { Controller, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { z } from 'zod';
import { CourseId } from '@jigsaw/contract/common';
import type { DealLine } from '@jigsaw/contract/dealing';
import { DealQuestion } from '@jigsaw/contract/dealing';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { Viewers } from '../course/index.js';
import { DealsService } from './deals.service.js';

@ApiTags('dealing')
@Controller('courses')
export class DealingController {
  constructor(
    private readonly viewers: Viewers,
    private readonly deals: DealsService,
  ) {}

  /** A line for each step and one for the end. Anyone who has enough goes away, and it stops. */
  @Endpoint('POST /:courseId/deals', {
    id: 'workOutDeal',
    does: 'Work out a deal of a very large class; newline-delimited JSON',
    body: DealQuestion,
    largestKb: 8000,
    lasts: true,
  })
  async workOut(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(DealQuestion) question: z.output<typeof DealQuestion>,
    @Res() response: Response,
  ): Promise<void> {
    await this.viewers.staff(person, courseId, 'place');
    const left = new AbortController();
    response.on('close', () => left.abort());
    response.status(200).set({
      'Content-Type': 'application/x-ndjson',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    const hear = (line: DealLine) => response.write(`${JSON.stringify(line)}\n`);
    await this.deals.workOut(person.id, question, hear, left.signal);
    response.end();
  }
}
