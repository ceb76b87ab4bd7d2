import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { EnrolmentId } from '@jigsaw/contract/common';
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
    request.signedIn =
      request.sitsAs === undefined
        ? found.person
        : await this.asStudent(found.person, request.sitsAs, context);
    request.sessionId = found.sessionId;
    return true;
  }

  private asStudent(person: SignedIn, sitsAs: string, context: ExecutionContext): Promise<SignedIn> {
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const isTold = this.reflector.get<boolean | undefined>(WHILE_SITTING_IN, context.getHandler());
    const enrolmentId = EnrolmentId.safeParse(sitsAs);
    if (!enrolmentId.success || !(isTold || isOfACourse(request))) throw problems.notFound();
    return this.sitIns.as(person, enrolmentId.data);
  }
}
