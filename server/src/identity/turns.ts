import type { CallHandler, ExecutionContext, NestInterceptor } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Observable } from 'rxjs';
import { from, lastValueFrom } from 'rxjs';
import { AtOnce } from '../platform/atOnce.js';
import { LASTS } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import type { SignedInRequest } from './signedIn.js';
import { askerOf } from './signedIn.js';

/** A browser asks for six at once; worked on one half after the other they are answered as soon, and others get their turn between them. */
const mostEach = 3;
const mostWaiting = 100;

/** Anyone who asks for much at once waits behind themselves and not before other people. Streams and files take no turn: they last. */
@Injectable()
export class TurnsInterceptor implements NestInterceptor {
  private readonly turns = new AtOnce(mostEach, mostWaiting, () =>
    problems.tooManyAtOnce('Very much is asked for at once from your account. Wait a moment and try again.'),
  );

  constructor(private readonly reflector: Reflector) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const { signedIn } = context.switchToHttp().getRequest<Partial<SignedInRequest>>();
    const lasts = this.reflector.get<boolean | undefined>(LASTS, context.getHandler());
    if (!signedIn || lasts) return next.handle();
    return from(
      this.turns.run(askerOf(signedIn), () => lastValueFrom(next.handle(), { defaultValue: undefined })),
    );
  }
}
