import { z } from 'zod';
import { isAddress, tidyAddress } from '@jigsaw/core/course';
import { delimiters } from '@jigsaw/core/files';
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

export const ColumnMeaning = z.enum([
  'email',
  'name',
  'given-name',
  'family-name',
  'reading',
  'number',
  'role',
  'section',
  'group',
  'attribute',
  'left-out',
]);

/** Bytes of a class file, a pasted list, or the registrar. */
export const ImportSource = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('file'),
    fileName: z.string().max(300),
    contentBase64: z
      .base64()
      .max(
        14_000_000,
        'The file is over 10 MB. A class file is a list of people; check that this is the right one.',
      ),
    /** What parts its cells; null: find it out. Of a spreadsheet or a bundle it says nothing. */
    delimiter: z.enum(delimiters).nullable().default(null),
    /** Which sheet of a workbook, counted from 0; null: find it out. */
    sheet: z.number().int().min(0).max(1000).nullable().default(null),
    /** In which line the headings stand, 0 if there are none; null: find it out. */
    headingLine: z.number().int().min(0).max(100_000).nullable().default(null),
  }),
  z.strictObject({
    kind: z.literal('paste'),
    text: z.string().max(1_000_000, 'The pasted text is over 1 MB.'),
    /** Of pasted cells, as of a file. */
    headingLine: z.number().int().min(0).max(100_000).nullable().default(null),
  }),
  /** What the registrar lists at this moment under its code for a course. `setName`: what the set of its sections is called, while there is none. */
  z.strictObject({
    kind: z.literal('registrar'),
    course: z.string().trim().min(1).max(80),
    setName: z.string().overwrite(oneLine).min(1, 'Give the set of sections a name.').max(120),
  }),
]);
export type ImportSource = z.input<typeof ImportSource>;

/** Rows of a file as someone corrected them; the file itself stays as it is. */
const Mends = z
  .array(z.strictObject({ line: z.number().int(), cells: z.array(z.string().max(5000)).max(200) }))
  .max(500);

const Lines = z.array(z.number().int()).max(20_000);
/** What someone said of single lines. */
const saidOfLines = {
  mends: Mends.default([]),
  /** People who are known by their number, and have a new address. */
  newAddresses: Lines.default([]),
  /** Known people who get the role that the file tells; all others keep theirs. */
  newRoles: Lines.default([]),
};

export const PreviewRequest = z.strictObject({
  source: ImportSource,
  role: Role.default('student'),
  ...saidOfLines,
  /** null: guess. */
  meanings: z.array(ColumnMeaning).nullable(),
});
export type PreviewRequest = z.input<typeof PreviewRequest>;

const RowPerson = z.object({
  email: z.string(),
  name: z.string(),
  familyName: z.string().nullable(),
  reading: z.string().nullable(),
  number: z.string().nullable(),
  role: Role.nullable(),
  places: z.array(z.object({ set: z.string().nullable(), group: z.string() })),
  attributes: z.record(z.string(), z.string()),
});
/** The role that the file tells of a known person who has another, and whether they get it; null: it tells none. */
const OtherRole = z.object({ told: Role, isTaken: z.boolean() }).nullable();
export const PreviewRowView = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('new'), line: z.number().int(), person: RowPerson }),
  z.object({
    kind: z.literal('changed'),
    line: z.number().int(),
    person: RowPerson,
    /** As someone said: it can be taken back. */
    hasNewAddress: z.boolean(),
    changes: z.array(z.object({ field: z.string(), from: z.string(), to: z.string() })),
    otherRole: OtherRole,
  }),
  z.object({
    kind: z.literal('unchanged'),
    line: z.number().int(),
    person: RowPerson,
    otherRole: OtherRole,
  }),
  z.object({
    kind: z.literal('problem'),
    line: z.number().int(),
    cells: z.array(z.string()),
    /** Which of them is at fault; null: none in particular. */
    faultyCell: z.number().int().nullable(),
    sentences: z.array(z.string()),
    /** Who has the number of the row, and may be the same person under a new address; null: no one. */
    mayBe: z.object({ name: z.string(), isAlike: z.boolean() }).nullable(),
  }),
]);
export type PreviewRowView = z.infer<typeof PreviewRowView>;

export const ImportPreview = z.object({
  columns: z.array(
    z.object({
      heading: z.string(),
      meaning: ColumnMeaning,
      sureness: z.enum(['sure', 'guess', 'chosen']),
      /** Of a column of groups: the set that it tells of, and whether the course has it. */
      set: z.object({ name: z.string(), isNew: z.boolean() }).nullable(),
      samples: z.array(z.string()),
    }),
  ),
  /** Where in the file the people were found; null: in all of it. */
  place: z
    .object({
      sheets: z.array(z.object({ name: z.string(), rows: z.number().int() })),
      sheet: z.number().int(),
      headingLine: z.number().int().nullable(),
      firstRows: z.array(z.object({ line: z.number().int(), text: z.string() })),
      /** Rows that are no people; the first hundred. */
      skipped: z.array(
        z.object({
          line: z.number().int(),
          because: z.enum([
            'above-headings',
            'headings-again',
            'total',
            'band',
            'signature',
            'words',
            'beside',
          ]),
          text: z.string(),
        }),
      ),
    })
    .nullable(),
  encoding: z.string(),
  delimiter: z.string(),
  hasHeader: z.boolean(),
  /** A sentence about the columns that must be answered first; then `rows` is empty. */
  columnProblem: z.string().nullable(),
  rows: z.array(PreviewRowView),
  /** In the course with this role, and in no row of the file. They stay unless they are named in `drop`. */
  missing: z.array(
    z.object({
      enrolmentId: EnrolmentId,
      name: z.string(),
      email: z.string(),
      groups: z.array(z.string()),
      /** The registrar listed them before and does so no longer: proposed to leave. */
      isDropped: z.boolean(),
    }),
  ),
  /** Groups that are made when this is imported, and whether their set is; `set` null: the set of sections. */
  newGroups: z.array(
    z.object({ set: z.string().nullable(), isNew: z.boolean(), groups: z.array(z.string()) }),
  ),
  /** What someone should know before bringing it in; null: nothing. */
  warning: z.string().nullable(),
  counts: z.object({
    new: z.number().int(),
    changed: z.number().int(),
    unchanged: z.number().int(),
    problem: z.number().int(),
  }),
  /** Names what was previewed: an import is applied only while the roster still gives this same preview. */
  fingerprint: z.string(),
});
export type ImportPreview = z.infer<typeof ImportPreview>;

export const ImportRequest = z.strictObject({
  source: ImportSource,
  role: Role.default('student'),
  ...saidOfLines,
  /** Those of the missing who leave the course. */
  drop: z.array(EnrolmentId).max(20_000).default([]),
  meanings: z.array(ColumnMeaning),
  /** Rows that the person chose to leave out, by line; a problem row that is not among them refuses the whole file. */
  leaveOutLines: Lines,
  fingerprint: z.string(),
});
export type ImportRequest = z.input<typeof ImportRequest>;
export const ImportResult = z.object({
  /** For undoing it; null: nothing changed. */
  changeId: RosterChangeId.nullable(),
  added: z.number().int(),
  changed: z.number().int(),
  unchanged: z.number().int(),
  dropped: z.number().int(),
  leftOut: z.number().int(),
  seated: z.number().int(),
});
export type ImportResult = z.infer<typeof ImportResult>;

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
