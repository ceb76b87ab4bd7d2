import { Controller, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { CourseId } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson, CurrentSession } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { Stream } from './stream.js';
import { Streams } from './streams.js';

/** After a line broke a page waits this long and a little more, so that not all come back in one moment. */
const againMs = 1000;
const spreadMs = 2000;

@ApiTags('live')
@Controller('courses')
export class LiveController {
  constructor(
    private readonly viewers: Viewers,
    private readonly streams: Streams,
  ) {}

  /** Tells what kind of thing changed, never what: the page asks again, and the decision function answers. It decides who is told, too. */
  @Endpoint('GET /:courseId/changes', {
    id: 'followChanges',
    does: 'Server-sent events: what kind of thing changed in the course',
    lasts: true,
  })
  async follow(
    @CurrentPerson() person: SignedIn,
    @CurrentSession() sessionId: ids.SessionId,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Query('page') page: unknown,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const viewer = await this.viewers.enter(person, courseId);
    if (request.destroyed) return; // gone while it was asked who they are
    response
      .status(200)
      .set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    response.write(`retry: ${againMs + Math.floor(Math.random() * spreadMs)}\n: here\n\n`);
    const named = typeof page === 'string' ? page : null;
    const owner = { personId: person.id, sessionId, page: named, sitsIn: person.sitsIn !== null };
    const stream = new Stream(owner, response, () => this.streams.gatherMs(courseId));
    this.streams.add(viewer, stream);
    response.on('close', () => this.streams.remove(viewer, stream));
  }
}
