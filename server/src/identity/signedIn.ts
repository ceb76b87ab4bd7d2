import type { ExecutionContext } from '@nestjs/common';
import { createParamDecorator, SetMetadata } from '@nestjs/common';
import type { Request } from 'express';
import type { PersonId, SessionId } from '@jigsaw/core/ids';

/** The person whose session this request belongs to. */
export interface SignedIn {
  readonly id: PersonId;
  readonly name: string;
  readonly reading: string | null;
  readonly email: string;
  /** Has shown that the address is theirs: every course that knows it is open to them. */
  readonly isProven: boolean;
  readonly mayCreateCourses: boolean;
}

export type SignedInRequest = Request & { signedIn?: SignedIn; sessionId?: SessionId };

export const PUBLIC = 'jigsaw:public';
/** Answers without anybody signed in. Everything else asks for a session. */
export const Public = () => SetMetadata(PUBLIC, true);

export const CurrentPerson = createParamDecorator((_data: unknown, context: ExecutionContext): SignedIn => {
  const { signedIn } = context.switchToHttp().getRequest<SignedInRequest>();
  if (!signedIn) throw new Error('a route without a session asked who is signed in');
  return signedIn;
});

export const CurrentSession = createParamDecorator((_data: unknown, context: ExecutionContext): SessionId => {
  const { sessionId } = context.switchToHttp().getRequest<SignedInRequest>();
  if (!sessionId) throw new Error('a route without a session asked which it is');
  return sessionId;
});
