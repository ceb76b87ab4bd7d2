import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { problems } from '../platform/problems.js';
import { SessionService } from './session.service.js';
import type { SignedInRequest } from './signedIn.js';
import { PUBLIC } from './signedIn.js';

export const cookieName = 'jigsaw_session';

@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly sessions: SessionService,
    private readonly reflector: Reflector,
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
    const token = cookies[cookieName];
    const person = typeof token === 'string' ? await this.sessions.personOf(token) : null;
    if (!person) throw problems.signedOut();
    request.signedIn = person;
    return true;
  }
}
