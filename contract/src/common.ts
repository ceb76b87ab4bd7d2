import { z } from 'zod';
import type * as ids from '@jigsaw/core/ids';
import { keptDecimal, oneLine } from '@jigsaw/core/text';

/** The one place on this floor that casts: a checked UUID has the brand of its kind, going in and coming out. */
const idOf = <Kind extends string>() => z.uuid() as unknown as z.ZodType<ids.Id<Kind>, ids.Id<Kind>>;

export const PersonId = idOf<'person'>();
export const SessionId = idOf<'session'>();
export const CourseId = idOf<'course'>();
export const EnrolmentId = idOf<'enrolment'>();
export const GroupSetId = idOf<'group-set'>();
export const GroupId = idOf<'group'>();
export const ActivityId = idOf<'activity'>();
export const ReleaseId = idOf<'release'>();
export const CopyId = idOf<'copy'>();
export const FileId = idOf<'file'>();
export const HandInId = idOf<'hand-in'>();
export const PostId = idOf<'post'>();
export const MailId = idOf<'mail'>();
export const RosterChangeId = idOf<'roster-change'>();
export const PageId = idOf<'page'>();
export const AudienceId = idOf<'audience'>();
export const HeadingId = idOf<'heading'>();
export const VisitId = idOf<'visit'>();
export const CalendarAddressId = idOf<'calendar-address'>();
export const NoteId = idOf<'note'>();
export const ShelfFileId = idOf<'shelf-file'>();
export const ThreadId = idOf<'thread'>();
export const MessageId = idOf<'message'>();
export const SendingId = idOf<'sending'>();

/** What checks values of one shape. */
export type Schema<Shape> = z.ZodType<Shape>;

/** ISO 8601, UTC. */
export const DateTime = z.iso.datetime();

/** A mark or a number of points: up to 2 decimals, never a binary float. */
export const DecimalString = z.string().regex(keptDecimal, 'Write a number with at most 2 decimals.');
export const Points = DecimalString.refine(
  (value) => Number(value) >= 0,
  'Write a number that is not below 0.',
);

const Page = z.url({ protocol: /^https?$/ });
/** The address of something that a browser opens as a page; empty: none. */
export const PageAddress = z
  .string()
  .overwrite(oneLine)
  .max(2000)
  .refine(
    (address) => address === '' || Page.safeParse(address).success,
    'Enter a whole address that begins with https:// or http://.',
  );

/** What every refusal looks like (RFC 9457). */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  /** A sentence for people: what happened and what to do. */
  detail: z.string(),
  issues: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** With stale-write: the state that is there now. */
  current: z.unknown().optional(),
});
export type Problem = z.infer<typeof Problem>;

/** To anyone who sits in as a student and does what the student could do. */
export const onlyLooking: Problem = {
  type: '/problems/only-looking',
  title: 'Only to look at',
  status: 403,
  detail: 'You are sitting in: the student could do this. Nothing is sent or changed from here.',
};

/** To anyone who practises and does what reaches further than a group’s activities. */
export const onlyPractising: Problem = {
  ...onlyLooking,
  type: '/problems/only-practising',
  detail:
    'You are practising: the practice student acts in the activities of a group. Nothing else is sent or changed from here.',
};

export const Role = z.enum(['instructor', 'assistant', 'student', 'observer']);
export type Role = z.infer<typeof Role>;

export const Done = z.object({ done: z.literal(true) });
export type Done = z.infer<typeof Done>;

/** Someone's name, with its reading in Latin letters where it is written in another script. */
export const PersonName = z.object({ name: z.string(), reading: z.string().nullable() });
export type PersonName = z.infer<typeof PersonName>;

/** Students of the course who lack a seat in some set in which everyone is to have one. */
export const ToPlace = z.object({
  /** The instructor's to place. */
  unplaced: z.number().int(),
  /** They can still choose for themselves, and lack no other seat. */
  choosing: z.number().int(),
});
export type ToPlace = z.infer<typeof ToPlace>;
