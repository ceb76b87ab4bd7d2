import { z } from 'zod';
import { isAddress, tidyAddress } from '@jigsaw/core/course';
import { oneLine } from '@jigsaw/core/text';
import { DateTime, EnrolmentId, GroupId, GroupSetId, PersonId, Role, RosterChangeId } from './common.js';
import { AttributeKind, RosterAttribute } from './course.js';

export const RosterEntry = z.object({
  enrolmentId: EnrolmentId,
  personId: PersonId,
  email: z.string(),
  name: z.string(),
  familyName: z.string().nullable(),
  reading: z.string().nullable(),
  number: z.string().nullable(),
  role: Role,
  attributes: z.record(z.string(), z.string()),
  joinedAt: DateTime,
  leftAt: DateTime.nullable(),
  lastSeenAt: DateTime.nullable(),
  /** Has chosen a password, here or in another course. */
  hasComeIn: z.boolean(),
  /** When they were last written to with a link, by this course. */
  invitedAt: DateTime.nullable(),
  groups: z.array(
    z.object({ setId: GroupSetId, groupId: GroupId, number: z.number().int(), name: z.string() }),
  ),
});
export type RosterEntry = z.infer<typeof RosterEntry>;
const RosterSet = z.object({
  id: GroupSetId,
  name: z.string(),
  /** Whether no one is in two of its groups. */
  isExclusive: z.boolean(),
  groups: z.array(z.object({ id: GroupId, number: z.number().int(), name: z.string() })),
});
export const RosterView = z.object({
  entries: z.array(RosterEntry),
  sets: z.array(RosterSet),
  attributes: z.array(RosterAttribute),
  /** When the class was last brought into step with the registrar; null: it does not follow one. */
  syncedAt: DateTime.nullable(),
});
export type RosterView = z.infer<typeof RosterView>;

/** The registrar as this course sees it. */
export const RegistrarView = z.discriminatedUnion('state', [
  /** No registrar is set up for this installation. */
  z.object({ state: z.literal('none') }),
  z.object({ state: z.literal('away'), sentence: z.string() }),
  z.object({
    state: z.literal('there'),
    /** What the person who asks teaches, as the registrar says. */
    courses: z.array(z.object({ code: z.string(), title: z.string(), people: z.number().int() })),
    /** Its code of the course that this one follows; null: none yet. */
    followed: z.string().nullable(),
    /** The one that has this course's code; null: none. */
    likely: z.string().nullable(),
    /** null: never imported yet. */
    syncedAt: DateTime.nullable(),
    /** The set that follows the registrar's sections; null: none yet. */
    setName: z.string().nullable(),
  }),
]);
export type RegistrarView = z.infer<typeof RegistrarView>;

const Email = z
  .string()
  .max(300)
  .transform(tidyAddress)
  .refine(isAddress, 'Write the address like name@school.example.');
const PersonName = z
  .string()
  .overwrite(oneLine)
  .min(1, 'Write a name.')
  .max(200, '200 characters are the most.');
const ShortText = z.string().overwrite(oneLine).max(200);
const AttributeName = z.string().overwrite(oneLine).min(1, 'Give the attribute a name.').max(80);
/** Absent: untouched. An attribute that is null is removed. */
const EntryFields = z.strictObject({
  email: Email.optional(),
  name: PersonName.optional(),
  familyName: ShortText.nullable().optional(),
  reading: ShortText.nullable().optional(),
  number: ShortText.nullable().optional(),
  role: Role.optional(),
  attributes: z.record(AttributeName, ShortText.nullable()).optional(),
});
export type EntryFields = z.infer<typeof EntryFields>;

export const NewEntry = z.strictObject({
  email: Email,
  name: PersonName,
  familyName: ShortText.nullable(),
  reading: ShortText.nullable(),
  number: ShortText.nullable(),
  role: Role,
  attributes: z.record(AttributeName, ShortText),
});
export type NewEntry = z.infer<typeof NewEntry>;

/** One act on the roster, of one person or several: all of it is done, or none, and it can be undone. */
export const RosterAct = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('add'), entry: NewEntry }),
  /** `from` is what the editor showed: anyone who was changed meanwhile in these fields is not changed again unseen. */
  z.strictObject({
    act: z.literal('edit'),
    edits: z
      .array(z.strictObject({ enrolmentId: EnrolmentId, from: EntryFields, to: EntryFields }))
      .min(1)
      .max(5000),
  }),
  z.strictObject({
    act: z.enum(['drop', 'restore']),
    enrolmentIds: z.array(EnrolmentId).min(1).max(5000),
  }),
  /** Two entries of one person: everything of the other's goes to the one that stays. */
  z.strictObject({ act: z.literal('join'), keep: EnrolmentId, other: EnrolmentId }),
  z.strictObject({ act: z.literal('rename-attribute'), from: AttributeName, to: AttributeName }),
]);
export type RosterAct = z.infer<typeof RosterAct>;

/** What an attribute is, whether anybody has a value of it yet or not. null: as its values look. */
export const ChooseKind = z.strictObject({ name: AttributeName, kind: AttributeKind.nullable() });
export type ChooseKind = z.infer<typeof ChooseKind>;
export const RosterAttributes = z.object({ attributes: z.array(RosterAttribute) });
export type RosterAttributes = z.infer<typeof RosterAttributes>;

export const RosterChanged = z.object({
  changeId: RosterChangeId.nullable(),
  people: z.number().int(),
  /** Seats that latecomers got in sets which give them one. */
  seated: z.number().int(),
});
export type RosterChanged = z.infer<typeof RosterChanged>;

export const RosterChangeView = z.object({
  id: RosterChangeId,
  kind: z.enum(['import', 'sync', 'add', 'edit', 'drop', 'restore', 'join', 'rename-attribute', 'undo']),
  at: DateTime,
  by: z.string(),
  counts: z.object({
    added: z.number().int(),
    removed: z.number().int(),
    dropped: z.number().int(),
    back: z.number().int(),
    edited: z.number().int(),
  }),
  /** The people it changed; the first few. */
  names: z.array(z.string()),
  isUndone: z.boolean(),
  canUndo: z.boolean(),
});
export type RosterChangeView = z.infer<typeof RosterChangeView>;
export const RosterChangeList = z.object({ changes: z.array(RosterChangeView) });
export type RosterChangeList = z.infer<typeof RosterChangeList>;
