import { z } from 'zod';
import { mostOfHandIns } from '@jigsaw/core/handin';
import { CopyId, DateTime, FileId, HandInId } from './common.js';
import { Lateness, WorkState } from './release.js';
import { Member } from './course.js';
import { RichText, StoredRichText } from './text.js';

const FileTypes = z
  .array(z.string().regex(/^[a-z0-9]{1,10}$/, 'Endings are letters and figures, like pdf.'))
  .max(30);
const Attempts = z.enum(['one', 'latest', 'all']);

/** A group writes in parts and adds files. */
export const AssignmentSettings = z.strictObject({ attempts: Attempts.default('latest') });
export type AssignmentSettings = z.infer<typeof AssignmentSettings>;

/** Files only, of these types, so many and so large; from the group or from each student. */
export const FolderSettings = z.strictObject({
  by: z.enum(['group', 'student']).default('group'),
  mostFiles: z
    .number()
    .int()
    .min(1, 'At least 1 file.')
    .max(mostOfHandIns.files, `${mostOfHandIns.files} files are the most.`)
    .default(5),
  types: FileTypes.default([]),
  largestMb: z.number().int().min(1).max(mostOfHandIns.fileMb).default(50),
  attempts: Attempts.default('latest'),
});
export type FolderSettings = z.infer<typeof FolderSettings>;

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
  /** Counts already and stays: every attempt is kept. */
  isHandedIn: z.boolean(),
});
export type WorkFile = z.infer<typeof WorkFile>;

/** What was handed in, frozen as it was then. */
export const HandInView = z.object({
  id: HandInId,
  attempt: z.number().int(),
  /** null: the group's. */
  owner: Member.nullable(),
  handedInAt: DateTime,
  handedInBy: Member,
  late: Lateness,
  credited: z.array(Member),
  parts: z.array(z.object({ author: Member, text: StoredRichText, words: z.number().int() })),
  files: z.array(WorkFile),
});
export type HandInView = z.infer<typeof HandInView>;

export const HandInRulesView = z.object({
  by: z.enum(['group', 'student']),
  takesText: z.boolean(),
  mostFiles: z.number().int(),
  types: z.array(z.string()),
  largestMb: z.number().int(),
  attempts: Attempts,
});

/** The work in one copy, as far as it is the asker's to see. */
export const WorkView = z.object({
  copyId: CopyId,
  rules: HandInRulesView,
  mayHandIn: z.boolean(),
  parts: z.array(PartView),
  files: z.array(WorkFile),
  /** Newest first. */
  handIns: z.array(HandInView),
  state: WorkState,
  /** What handing in at this moment would cost, told before anybody presses. */
});
export type WorkView = z.infer<typeof WorkView>;

/** One's own part of the group's text; no one else can change or delete it. `version` 0: the first save. */
export const SavePart = z.strictObject({ text: RichText, version: z.number().int().min(0) });
export interface SavePart {
  readonly text: RichText;
  readonly version: number;
}

export const HandInRequest = z.strictObject({ attempt: z.number().int().min(1) });
export type HandInRequest = z.infer<typeof HandInRequest>;
