import { Injectable, SetMetadata } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sendProblem } from '../platform/problem.filter.js';
import { problems } from '../platform/problems.js';
import type { SignedIn, SignedInRequest } from './signedIn.js';

const address = /^\/sit-in\/([^/]+)(\/api\/.*)$/;

/** A question under `/sit-in/<enrolment>/api/…` is answered as that student is answered. Where someone sits in stands in the address and nowhere else: it lasts no
 * longer than the page, and other pages of theirs are as they were. Nothing but reading gets past here. */
export function takeSitIn(request: Request, response: Response, next: NextFunction): void {
  const [, sitsAs, asked] = address.exec(request.url) ?? [];
  if (sitsAs === undefined || asked === undefined) return next();
  (request as SignedInRequest).sitsAs = sitsAs;
  request.url = asked;
  if (request.method === 'GET' || request.method === 'HEAD') next();
  else sendProblem(response, problems.onlyLooking());
}

export const WHILE_SITTING_IN = 'jigsaw:while-sitting-in';
/** Answers someone who sits in although it belongs to no course. Of an account nothing else is told to anyone but its owner. */
export const WhileSittingIn = () => SetMetadata(WHILE_SITTING_IN, true);

/** What belongs to a course is reached through one of these, and decided there for the student. */
const ofACourse = ['courseId', 'setId', 'groupId', 'activityId', 'releaseId', 'copyId'];
export const isOfACourse = ({ params }: Pick<Request, 'params'>): boolean =>
  ofACourse.some((name) => name in params);

/** @throws not-found, not-yours: what anyone who asks for this student would be told. */
type As = (person: SignedIn, enrolmentId: EnrolmentId) => Promise<SignedIn>;

/** Who sits in is the course’s to say, and it says so when it starts. */
@Injectable()
export class SitIns {
  as: As = () => Promise.reject(problems.notFound());

  know(as: As): void {
    this.as = as;
  }
}
