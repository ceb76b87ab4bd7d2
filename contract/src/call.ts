import { z } from 'zod';
import { DateTime, EnrolmentId, PageAddress, VisitId } from './common.js';
import { Author, Member } from './course.js';

export const CallSettings = z.strictObject({});
export type CallSettings = z.infer<typeof CallSettings>;

export const CallView = z.object({
  members: z.array(Member),
  /** Who is in now, the longest first. */
  inNow: z.array(z.object({ member: Author, since: DateTime })),
  /** Who came when, of the last days: for those who share the call, not for staff. */
  visits: z.array(
    z.object({
      enrolmentId: EnrolmentId,
      name: z.string(),
      from: DateTime,
      seen: DateTime,
      left: DateTime.nullable(),
    }),
  ),
  door: z.object({ address: z.string(), version: z.number().int() }),
  mayStepIn: z.boolean(),
  maySetDoor: z.boolean(),
  serverTime: DateTime,
});
export type CallView = z.infer<typeof CallView>;

/** The page makes the id, so that a press that is sent twice is one visit. */
export const StepIn = z.strictObject({ id: VisitId });
export type StepIn = z.infer<typeof StepIn>;

/** Where the door leads: the address of a call elsewhere; empty: nowhere, the stand-in is all there is.
 * @param version as it was read: an address that someone else put there meanwhile is shown, never overwritten. */
export const SetDoor = z.strictObject({ address: PageAddress, version: z.number().int() });
export type SetDoor = z.infer<typeof SetDoor>;

export const StillIn = z.object({ isIn: z.boolean() });
export type StillIn = z.infer<typeof StillIn>;
