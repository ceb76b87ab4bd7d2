import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { EnrolmentId, GroupId } from '@jigsaw/contract/common';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { problems } from '../platform/problems.js';
import { SessionService } from './session.service.js';
import type { SignedIn, SignedInRequest } from './signedIn.js';
import { PUBLIC } from './signedIn.js';
import { isOfACourse, SitIns, WHILE_SITTING_IN } from './sittingIn.js';

@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly sessions: SessionService,
    private readonly sitIns: SitIns,
    private readonly reflector: Reflector,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (
      this.reflector.getAllAndOverride<boolean | undefined>(PUBLIC, [
        context.getHandler(),
        context.getClass(),
      ])
    )
      return true;
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const cookies = request.cookies as Record<string, unknown>;
    const token = cookies[this.config.cookieName];
    const found = typeof token === 'string' ? await this.sessions.find(token) : null;
    if (!found) throw problems.signedOut();
    request.signedIn = await this.asAsked(found.person, request, context);
    request.sessionId = found.sessionId;
    return true;
  }

  /** The person themselves, or the student who they look or practise as. */
  private asAsked(person: SignedIn, request: SignedInRequest, context: ExecutionContext): Promise<SignedIn> {
    const { sitsAs, practisesIn } = request;
    if (sitsAs === undefined && practisesIn === undefined) return Promise.resolve(person);
    const isTold = this.reflector.get<boolean | undefined>(WHILE_SITTING_IN, context.getHandler());
    if (!isTold && !isOfACourse(request)) throw problems.notFound();
    const enrolmentId = EnrolmentId.safeParse(sitsAs);
    if (enrolmentId.success) return this.sitIns.as(person, enrolmentId.data);
    const groupId = GroupId.safeParse(practisesIn);
    if (!groupId.success) throw problems.notFound();
    return this.sitIns.asPracticeIn(person, groupId.data);
  }
}
