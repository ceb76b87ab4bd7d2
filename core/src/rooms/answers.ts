import type { CopyId, EnrolmentId } from '../ids/index.js';
import type { Instant } from '../release/index.js';
import type { Need } from './needs.js';

/** What someone of the staff says to a stop, for themselves: they have seen to it, it can wait, or nothing needs doing. */
export const stopAnswers = ['done', 'later', 'not-needed'] as const;
export type StopAnswer = (typeof stopAnswers)[number];

/** What is put off comes again after so long. */
export const laterMs = 3 * 3_600_000;

/** What a need is about: the copy, or for someone who is quiet the member. With its code and its group that tells one need from every other. */
export type StopSubject = CopyId | EnrolmentId;
export const subjectOf = (need: Subjected): StopSubject =>
  need.code === 'silent' ? need.enrolmentId : need.copyId;

type Subjected =
  | { readonly code: Exclude<Need['code'], 'silent'>; readonly copyId: CopyId }
  | { readonly code: 'silent'; readonly enrolmentId: EnrolmentId };
type Covered<At> =
  | { readonly code: 'question' | 'to-mark'; readonly newest: At }
  | { readonly code: 'nothing-yet'; readonly due: At }
  | { readonly code: 'missing' | 'silent'; readonly since: At };

/** Up to when an answer covers it: the moment of the newest part of it. What comes later was not what the answer was about. */
export function upToOf<At>(need: Covered<At>): At {
  switch (need.code) {
    case 'question':
    case 'to-mark':
      return need.newest;
    case 'nothing-yet':
      return need.due;
    case 'missing':
    case 'silent':
      return need.since;
  }
}

/** Whether it is off someone's mind: they answered it, nothing of it is newer than what they answered, and it was not put off longer ago than that lasts.
 * @param now milliseconds, UTC. */
export function isAnswered(
  need: Need,
  answer: { readonly said: StopAnswer; readonly upTo: Instant; readonly at: Instant },
  now: Instant,
): boolean {
  return upToOf(need) <= answer.upTo && (answer.said !== 'later' || now < answer.at + laterMs);
}
