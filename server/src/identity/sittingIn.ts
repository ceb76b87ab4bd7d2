import { Injectable, SetMetadata } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sendProblem } from '../platform/problem.filter.js';
import { problems } from '../platform/problems.js';
import type { SignedIn, SignedInRequest } from './signedIn.js';

const address = /^\/(sit-in|practise)\/([^/]+)(\/api\/.*)$/;

/** A question under `/sit-in/<enrolment>/api/…` is answered as that student is answered. Where someone sits in stands in the address and nowhere else: it lasts no
 * longer than the page, and other pages of theirs are as they were. Nothing but reading gets past here. Under `/practise/<group>/api/…` the practice student asks, as a
 * member of that group; they act in copies, and only there. */
export function takeSitIn(request: Request, response: Response, next: NextFunction): void {
  const [, how, who, asked] = address.exec(request.url) ?? [];
  if (who === undefined || asked === undefined) return next();
  request.url = asked;
  const isPractice = how === 'practise';
  (request as SignedInRequest)[isPractice ? 'practisesIn' : 'sitsAs'] = who;
  const isRead = request.method === 'GET' || request.method === 'HEAD';
  if (isRead || (isPractice && asked.startsWith('/api/copies/'))) next();
  else sendProblem(response, isPractice ? problems.onlyPractising() : problems.onlyLooking());
}

export const WHILE_SITTING_IN = 'jigsaw:while-sitting-in';
/** Answers someone who sits in although it belongs to no course. Of an account nothing else is told to anyone but its owner. */
export const WhileSittingIn = () => SetMetadata(WHILE_SITTING_IN, true);

/** What belongs to a course is reached through one of these, and decided there for the student. */
const ofACourse = [
  'courseId',
  'setId',
  'groupId',
  'activityId',
  'releaseId',
  'copyId',
  'threadId',
  'sendingId',
];
export const isOfACourse = ({ params }: Pick<Request, 'params'>): boolean =>
  ofACourse.some((name) => name in params);

/** @throws not-found, not-yours: what anyone who asks for this student would be told. */
type As = (person: SignedIn, enrolmentId: EnrolmentId) => Promise<SignedIn>;
type AsPracticeIn = (person: SignedIn, groupId: GroupId) => Promise<SignedIn>;

/** Who sits in is the course’s to say, and it says so when it starts. */
@Injectable()
export class SitIns {
  as: As = () => Promise.reject(problems.notFound());

  know(as: As): void {
    this.as = as;
  }

  asPracticeIn: AsPracticeIn = () => Promise.reject(problems.notFound());

  knowPractice(as: AsPracticeIn): void {
    this.asPracticeIn = as;
  }
}
