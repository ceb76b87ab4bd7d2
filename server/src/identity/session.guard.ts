import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { problems } from '../platform/problems.js';
import { SessionService } from './session.service.js';
import type { SignedInRequest } from './signedIn.js';
import { PUBLIC } from './signedIn.js';

@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly sessions: SessionService,
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
    request.signedIn = found.person;
    request.sessionId = found.sessionId;
    return true;
  }
}
