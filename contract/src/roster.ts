import { z } from 'zod';
import { CourseId, DateTime, EnrolmentId, GroupId, GroupSetId, PersonId, Role } from './common.js';

const timeZones = new Set(Intl.supportedValuesOf('timeZone'));
export const TimeZone = z.string().refine((zone) => zone === 'UTC' || timeZones.has(zone), 'Choose a time zone from the list.');

export const CreateCourse = z.strictObject({
  code: z.string().trim().min(1, 'Give the course a short code, like FER 220.').max(40),
  title: z.string().trim().min(1, 'Give the course a title.').max(200),
  term: z.string().trim().max(80),
  timeZone: TimeZone,
});
export type CreateCourse = z.infer<typeof CreateCourse>;

export const CourseView = z.object({
  id: CourseId,
  code: z.string(),
  title: z.string(),
  term: z.string(),
  timeZone: z.string(),
  role: Role,
  enrolmentId: EnrolmentId,
});
export type CourseView = z.infer<typeof CourseView>;
export const CourseList = z.object({ courses: z.array(CourseView) });
export type CourseList = z.infer<typeof CourseList>;

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
  groups: z.array(z.object({ setId: GroupSetId, groupId: GroupId, number: z.number().int(), name: z.string() })),
});
export type RosterEntry = z.infer<typeof RosterEntry>;
export const RosterView = z.object({ entries: z.array(RosterEntry), sets: z.array(z.object({ id: GroupSetId, name: z.string() })) });
export type RosterView = z.infer<typeof RosterView>;

export const ColumnMeaning = z.enum(['email', 'name', 'given-name', 'family-name', 'reading', 'number', 'attribute', 'left-out']);

/** Bytes of a class file, or a pasted list. */
export const ImportSource = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('file'),
    fileName: z.string().max(300),
    contentBase64: z.base64().max(14_000_000, 'The file is over 10 MB. A class file is a list of people; check that this is the right one.'),
  }),
  z.strictObject({ kind: z.literal('paste'), text: z.string().max(1_000_000, 'The pasted text is over 1 MB.') }),
]);
export type ImportSource = z.infer<typeof ImportSource>;

export const PreviewRequest = z.strictObject({
  source: ImportSource,
  role: Role.default('student'),
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
  attributes: z.record(z.string(), z.string()),
});
export const PreviewRowView = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('new'), line: z.number().int(), person: RowPerson }),
  z.object({
    kind: z.literal('changed'),
    line: z.number().int(),
    person: RowPerson,
    changes: z.array(z.object({ field: z.string(), from: z.string(), to: z.string() })),
  }),
  z.object({ kind: z.literal('unchanged'), line: z.number().int(), person: RowPerson }),
  z.object({ kind: z.literal('problem'), line: z.number().int(), cells: z.array(z.string()), sentences: z.array(z.string()) }),
]);
export type PreviewRowView = z.infer<typeof PreviewRowView>;

export const ImportPreview = z.object({
  columns: z.array(z.object({ heading: z.string(), meaning: ColumnMeaning, sureness: z.enum(['sure', 'guess', 'chosen']), samples: z.array(z.string()) })),
  encoding: z.string(),
  delimiter: z.string(),
  hasHeader: z.boolean(),
  /** A sentence about the columns that must be answered first; then `rows` is empty. */
  columnProblem: z.string().nullable(),
  rows: z.array(PreviewRowView),
  counts: z.object({ new: z.number().int(), changed: z.number().int(), unchanged: z.number().int(), problem: z.number().int() }),
  /** Names what was previewed: an import is applied only while the roster still gives this same preview. */
  fingerprint: z.string(),
});
export type ImportPreview = z.infer<typeof ImportPreview>;

export const ImportRequest = z.strictObject({
  source: ImportSource,
  role: Role.default('student'),
  meanings: z.array(ColumnMeaning),
  /** Problem rows that the person chose to leave out, by line; any other problem row refuses the whole file. */
  leaveOutLines: z.array(z.number().int()).max(20_000),
  fingerprint: z.string(),
});
export type ImportRequest = z.input<typeof ImportRequest>;
export const ImportResult = z.object({ added: z.number().int(), changed: z.number().int(), unchanged: z.number().int(), leftOut: z.number().int() });
export type ImportResult = z.infer<typeof ImportResult>;
