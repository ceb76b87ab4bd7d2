import { z } from 'zod';
import { needCodes, stopAnswers } from '@jigsaw/core/rooms';
import { ActivityId, CopyId, DateTime, EnrolmentId, GroupId, PostId, ReleaseId } from './common.js';
import { Member } from './course.js';
import { OwnFiles } from './ownFiles.js';
import {
  AttachedFile,
  Happening,
  KindSettings,
  LatePolicy,
  Progress,
  ReleaseMode,
  ScheduleView,
  WorkState,
} from './release.js';
import { GroupTag } from './sets.js';
import { Rubric } from './rubric.js';
import { StoredRichText } from './text.js';

/** One activity as a room lists it. */
export const RoomItem = z.object({
  copyId: CopyId,
  releaseId: ReleaseId,
  activityId: ActivityId,
  kind: z.string(),
  title: z.string(),
  points: z.string().nullable(),
  due: DateTime.nullable(),
  isExtended: z.boolean(),
  /** null: at no time of its own. */
  happens: Happening.nullable(),
  access: z.enum(['open', 'read-only']),
  mode: ReleaseMode,
  progress: Progress,
  /** What others wrote and the asker has not seen. */
  unread: z.number().int(),
  latest: z.object({ at: DateTime, by: z.string(), byYou: z.boolean(), excerpt: z.string() }).nullable(),
  hasMark: z.boolean(),
});
export type RoomItem = z.infer<typeof RoomItem>;

/** It exists, and that is all that is told of it. */
export const LockedItem = z.object({ title: z.string(), kind: z.string(), why: z.array(z.string()) });
export type LockedItem = z.infer<typeof LockedItem>;

export const RoomView = z.object({
  group: GroupTag,
  /** What its set is for, where members may read that. */
  about: z.string(),
  motto: z.string(),
  /** For changing name and motto, if the asker may; null: they may not. */
  namingVersion: z.number().int().nullable(),
  members: z.array(Member.extend({ isLeader: z.boolean() })),
  items: z.array(RoomItem),
});
export type RoomView = z.infer<typeof RoomView>;
export const RoomList = z.object({
  rooms: z.array(RoomView),
  /** One copy for several groups or for the class. */
  common: z.array(RoomItem),
  locked: z.array(LockedItem),
});
export type RoomList = z.infer<typeof RoomList>;

const inCopy = { copyId: CopyId, kind: z.string(), title: z.string() };
/** Why a room needs a person of the staff, as core/rooms weighs it. `newest`: up to where an answer covers it. */
export const RoomNeed = z.discriminatedUnion('code', [
  z.object({ code: z.literal('question'), ...inCopy, postId: PostId, by: z.string(), excerpt: z.string(), since: DateTime, newest: DateTime, count: z.number().int() }),
  z.object({ code: z.literal('nothing-yet'), ...inCopy, due: DateTime }),
  z.object({ code: z.literal('missing'), ...inCopy, since: DateTime }),
  z.object({ code: z.literal('to-mark'), ...inCopy, releaseId: ReleaseId, unit: z.union([z.literal('group'), EnrolmentId]), since: DateTime, newest: DateTime, isLate: z.boolean() }),
  z.object({ code: z.literal('silent'), enrolmentId: EnrolmentId, name: z.string(), reading: z.string().nullable(), since: DateTime }),
]); // prettier-ignore
export type RoomNeed = z.infer<typeof RoomNeed>;

const StopAnswer = z.enum(stopAnswers);
/** What the asker says to a stop, for themselves.
 * subjectId: the copy's, or the quiet member's enrolment.
 * upTo: the newest part of what was shown to them, so that they are asked about what comes later.
 * said null: it is open again. */
export const AnswerStop = z.strictObject({
  groupId: GroupId,
  code: z.enum(needCodes),
  subjectId: z.uuid(),
  upTo: DateTime,
  said: StopAnswer.nullable(),
});
export type AnswerStop = z.infer<typeof AnswerStop>;

/** A group's room as staff find it among all. */
export const RoomLine = z.object({
  group: GroupTag,
  /** The asker leads it. */
  isLed: z.boolean(),
  /** By name. */
  members: z.array(z.string()),
  /** How many activities are in it. */
  items: z.number().int(),
  /** Which kinds these are of. */
  kinds: z.array(z.string()),
  unread: z.number().int(),
  /** Where there is something unread; null: nowhere. */
  firstUnread: CopyId.nullable(),
  /** The most pressing first, without what the asker has answered; none: nothing is open there. */
  needs: z.array(RoomNeed),
  /** What the asker has answered, as long as it is there. */
  answered: z.array(z.object({ need: RoomNeed, said: StopAnswer, at: DateTime })),
  /** How much it needs someone: the lines are in this order where the reader wants it so. */
  score: z.number(),
  /** How much was written on each of the last days, today last. */
  days: z.array(z.number().int()),
  latest: z.object({ at: DateTime, by: z.string(), title: z.string(), copyId: CopyId }).nullable(),
});
export type RoomLine = z.infer<typeof RoomLine>;
export const RoomLines = z.object({
  lines: z.array(RoomLine),
  /** One copy for several groups or for the class. */
  common: z.array(RoomItem),
});
export type RoomLines = z.infer<typeof RoomLines>;

/** What was written last in a group's room, the newest first, as far as the asker may read it. */
export const LastWritten = z.object({
  items: z.array(
    z.object({
      copyId: CopyId,
      kind: z.string(),
      title: z.string(),
      at: DateTime,
      by: z.string(),
      byYou: z.boolean(),
      /** How it begins; empty: nothing of it is words. */
      excerpt: z.string(),
      /** The asker has not seen it. */
      isNew: z.boolean(),
    }),
  ),
});
export type LastWritten = z.infer<typeof LastWritten>;

/** What each member of a group wrote lately in its room, and which rooms stand beside it. */
export const Lately = z.object({
  members: z.array(
    z.object({
      enrolmentId: EnrolmentId,
      name: z.string(),
      reading: z.string().nullable(),
      /** How much on each of the last days, today last. */
      days: z.array(z.number().int()),
      /** null: nothing yet. */
      last: z.object({ at: DateTime, title: z.string(), copyId: CopyId }).nullable(),
    }),
  ),
  /** The rooms before and after it in its set, as far as the asker may look into them; null: there is none. */
  previous: GroupTag.nullable(),
  next: GroupTag.nullable(),
});
export type Lately = z.infer<typeof Lately>;

/** What every copy has, whatever its kind. Its content is asked for from the kind. */
export const CopyHead = z.object({
  id: CopyId,
  releaseId: ReleaseId,
  activityId: ActivityId,
  kind: z.string(),
  settings: KindSettings,
  title: z.string(),
  brief: StoredRichText,
  /** For all to read. */
  files: z.array(AttachedFile),
  /** Of which this copy has its own. */
  ownFiles: OwnFiles,
  points: z.string().nullable(),
  rubric: Rubric.nullable(),
  /** The asker's dates: with the extension of this group, if it has one, and for a student with their own. */
  schedule: ScheduleView,
  /** isOwn: the asker's alone; no one else in the group has it. */
  extension: z.object({ due: DateTime, reason: z.string(), isOwn: z.boolean() }).nullable(),
  latePolicy: LatePolicy,
  access: z.enum(['open', 'read-only']),
  part: z.enum(['member', 'staff', 'reader']),
  mode: ReleaseMode,
  /** null: one copy for all. */
  group: GroupTag.nullable(),
  members: z.array(Member),
  /** Other groups' copies of the same that the asker may look into; for staff all of them. */
  others: z.array(z.object({ copyId: CopyId, group: GroupTag, unread: z.number().int(), state: WorkState })),
  unread: z.number().int(),
  serverTime: DateTime,
});
export type CopyHead = z.infer<typeof CopyHead>;

/** The copies of an activity that the asker may read, in the order of their groups; null: one copy for all. */
export const CopiesOfActivity = z.object({
  copies: z.array(z.object({ copyId: CopyId, group: GroupTag.nullable() })),
});
export type CopiesOfActivity = z.infer<typeof CopiesOfActivity>;

/** What the asker has now seen; `all` is everything that is there at this moment. */
export const MarkSeen = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('all') }),
  z.strictObject({
    what: z.literal('items'),
    items: z.array(z.strictObject({ id: z.uuid(), version: z.number().int().min(1) })).max(500),
  }),
]);
export type MarkSeen = z.infer<typeof MarkSeen>;
export const SeenAnswer = z.object({ unread: z.number().int() });
export type SeenAnswer = z.infer<typeof SeenAnswer>;
