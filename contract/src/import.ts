import { z } from 'zod';
import { delimiters } from '@jigsaw/core/files';
import { oneLine } from '@jigsaw/core/text';
import { EnrolmentId, Role, RosterChangeId } from './common.js';

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
const FileSource = z.strictObject({
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
});
export const ImportSource = z.discriminatedUnion('kind', [
  FileSource,
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

/** A file that is read as a table, for a page to show what it would do. */
export const TableRequest = FileSource;
export type TableRequest = z.input<typeof TableRequest>;

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

/** Where in a file the people were found, and what was passed over. */
const Place = z.object({
  sheets: z.array(z.object({ name: z.string(), rows: z.number().int() })),
  sheet: z.number().int(),
  headingLine: z.number().int().nullable(),
  firstRows: z.array(z.object({ line: z.number().int(), text: z.string() })),
  /** Rows that are no people; the first hundred. */
  skipped: z.array(
    z.object({
      line: z.number().int(),
      because: z.enum(['above-headings', 'headings-again', 'total', 'band', 'signature', 'words', 'beside']),
      text: z.string(),
    }),
  ),
});

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
  place: Place.nullable(),
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

export const TableView = z.object({
  headings: z.array(z.string()),
  rows: z.array(z.object({ line: z.number().int(), cells: z.array(z.string()) })),
  place: Place.nullable(),
});
export type TableView = z.infer<typeof TableView>;

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
