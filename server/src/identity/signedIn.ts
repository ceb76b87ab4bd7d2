import type { ExecutionContext } from '@nestjs/common';
import { createParamDecorator, SetMetadata } from '@nestjs/common';
import type { Request } from 'express';
import type { CourseId, EnrolmentId, GroupId, GroupSetId, PersonId, SessionId } from '@jigsaw/core/ids';

/** Someone of the staff looks at their course as one of its students: reads what that student reads in this course, and writes nothing. Or they practise: work as
 * the practice student, in copies of its own. */
export interface SittingIn {
  readonly courseId: CourseId;
  /** The student. */
  readonly enrolmentId: EnrolmentId;
  /** null: it is a student of the course. */
  readonly practises: Practising | null;
  /** Whose session it is. */
  readonly by: PersonId;
}

export interface Practising {
  /** The group that they act in. */
  readonly groupId: GroupId;
  readonly setId: GroupSetId;
  readonly groupName: string;
  /** Copies of this round alone are theirs. */
  readonly round: number;
}

/** The person whose session this request belongs to; or, where someone sits in, that student. */
export interface SignedIn {
  readonly id: PersonId;
  readonly name: string;
  readonly reading: string | null;
  readonly email: string;
  /** Has shown that the address is theirs: every course that knows it is open to them. */
  readonly isProven: boolean;
  readonly mayCreateCourses: boolean;
  /** null: it is the person themselves. */
  readonly sitsIn: SittingIn | null;
}

/** Which copies are there for someone: those that are everyone's, or those of the round in which they practise. */
export const practiceRoundOf = ({ sitsIn }: SignedIn): number | null => sitsIn?.practises?.round ?? null;

/** Whose account does the asking. */
export const askerOf = ({ id, sitsIn }: SignedIn): PersonId => sitsIn?.by ?? id;

export type SignedInRequest = Request & {
  signedIn?: SignedIn;
  sessionId?: SessionId;
  /** The enrolment of the student for whose eyes it is asked, as it stands in the address. */
  sitsAs?: string;
  /** The group in which it is practised, as it stands in the address. */
  practisesIn?: string;
};

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
