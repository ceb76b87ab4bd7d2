import { z } from 'zod';
import { CopyId, DateTime, EnrolmentId, FileId, GroupId, GroupSetId, HandInId } from './common.js';
import { LatePolicy } from './release.js';
import { RichText, StoredRichText } from './text.js';

export const Member = z.object({ enrolmentId: EnrolmentId, name: z.string(), reading: z.string().nullable(), isYou: z.boolean() });
export type Member = z.infer<typeof Member>;

export const GroupTag = z.object({ id: GroupId, setId: GroupSetId, setName: z.string(), number: z.number().int(), name: z.string() });
export type GroupTag = z.infer<typeof GroupTag>;

export const HandInState = z.enum(['not-started', 'in-work', 'handed-in', 'changed-since']);
export type HandInState = z.infer<typeof HandInState>;

const Lateness = z.object({ minutes: z.number().int(), deduction: z.string() });

/** One of a group's activities as its room lists it. */
export const RoomItem = z.object({
  copyId: CopyId,
  title: z.string(),
  points: z.string(),
  due: DateTime.nullable(),
  access: z.enum(['open', 'read-only']),
  state: HandInState,
  handedInAt: DateTime.nullable(),
  late: Lateness.nullable(),
  hasMark: z.boolean(),
});
export type RoomItem = z.infer<typeof RoomItem>;

export const RoomView = z.object({ group: GroupTag, members: z.array(Member), items: z.array(RoomItem) });
export type RoomView = z.infer<typeof RoomView>;
export const RoomList = z.object({ rooms: z.array(RoomView) });
export type RoomList = z.infer<typeof RoomList>;

export const PartView = z.object({
  author: Member,
  text: StoredRichText,
  words: z.number().int(),
  version: z.number().int(),
  updatedAt: DateTime,
});
export type PartView = z.infer<typeof PartView>;

export const WorkFile = z.object({
  id: FileId,
  name: z.string(),
  mediaType: z.string(),
  sizeBytes: z.number().int(),
  addedBy: Member,
  addedAt: DateTime,
});
export type WorkFile = z.infer<typeof WorkFile>;

/** What was handed in, frozen as it was then. */
export const HandInView = z.object({
  id: HandInId,
  attempt: z.number().int(),
  handedInAt: DateTime,
  handedInBy: Member,
  late: Lateness,
  credited: z.array(Member),
  parts: z.array(z.object({ author: Member, text: StoredRichText, words: z.number().int() })),
  files: z.array(WorkFile),
});
export type HandInView = z.infer<typeof HandInView>;

/** One group's copy of an assignment, for whoever may see it. */
export const CopyView = z.object({
  id: CopyId,
  title: z.string(),
  brief: StoredRichText,
  points: z.string(),
  schedule: z.object({ opens: DateTime.nullable(), due: DateTime.nullable(), closes: DateTime.nullable() }),
  latePolicy: LatePolicy,
  access: z.enum(['open', 'read-only']),
  mayHandIn: z.boolean(),
  group: GroupTag,
  members: z.array(Member),
  parts: z.array(PartView),
  files: z.array(WorkFile),
  handIns: z.array(HandInView),
  state: HandInState,
  /** What handing in at this moment would cost, told before anybody presses. */
  lateNow: Lateness,
  serverTime: DateTime,
});
export type CopyView = z.infer<typeof CopyView>;

/** One's own part of the group's text; nobody else can change or delete it. `version` 0: the first save. */
export const SavePart = z.strictObject({ text: RichText, version: z.number().int().min(0) });
export interface SavePart {
  readonly text: RichText;
  readonly version: number;
}

export const HandInRequest = z.strictObject({ attempt: z.number().int().min(1) });
export type HandInRequest = z.infer<typeof HandInRequest>;
