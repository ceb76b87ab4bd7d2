import { Controller, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { CourseId } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import { may } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { Viewers } from '../course/index.js';
import type { Change } from './changes.js';
import { Changes } from './changes.js';
import { inOrder } from './inOrder.js';

const heartbeatMs = 25_000;

@ApiTags('live')
@Controller('courses')
export class LiveController {
  constructor(
    private readonly viewers: Viewers,
    private readonly changes: Changes,
  ) {}

  /** Tells what kind of thing changed, never what: the page asks again, and the decision function answers. */
  @Endpoint('GET /:courseId/changes', {
    id: 'followChanges',
    does: 'Server-sent events: what kind of thing changed in the course',
  })
  async follow(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Query('page') page: unknown,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.viewers.enter(person, courseId);
    response
      .status(200)
      .set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    response.write(': here\n\n');
    const send = async (change: Change) => {
      const viewer = await this.viewers.find(person, courseId); // groups may have changed since the stream began
      if (!viewer || viewer.hasLeft) return response.end();
      const isTheirs =
        change.isForAll ||
        (may(viewer.role, 'read-course') && (change.isForStaff || !viewer.seesOnlyLed)) ||
        change.enrolmentIds.includes(viewer.enrolmentId) ||
        viewer.leads.some((groupId) => change.groupIds.includes(groupId)) ||
        viewer.groups.some(
          (group) => change.groupIds.includes(group.groupId) || change.setIds.includes(group.setId),
        );
      return isTheirs
        ? response.write(
            `event: change\ndata: ${JSON.stringify({ type: change.type, isYours: change.page !== null && change.page === page })}\n\n`,
          )
        : undefined;
    };
    // A page asks again as it hears; an older notice after a newer one would make it ask for what it has.
    const pass = inOrder(send, (error) => {
      request.log.warn({ err: error }, 'a live change could not be passed on');
      response.end(); // the page connects again and asks for everything
    });
    const stop = this.changes.subscribe(courseId, pass);
    const heartbeat = setInterval(() => response.write(': still here\n\n'), heartbeatMs);
    request.on('close', () => {
      clearInterval(heartbeat);
      stop();
    });
  }
}
