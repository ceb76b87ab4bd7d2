import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { DateTime, PageId } from './common.js';
import { Author } from './course.js';
import { RichText, StoredRichText } from './text.js';

const PageTitle = z.string().overwrite(oneLine).min(1, 'Give the page a title.').max(120);

export const WikiSettings = z.strictObject({
  /** The first page of every copy; a group writes on from it. */
  promptTitle: PageTitle.default('Start here'),
  promptText: RichText.prefault({ type: 'doc', content: [{ type: 'paragraph' }] }),
  markFor: z.enum(['group', 'student']).default('group'),
});
export type WikiSettings = z.infer<typeof WikiSettings>;

const PageLine = z.object({
  id: PageId,
  title: z.string(),
  words: z.number().int(),
  revision: z.number().int(),
  savedAt: DateTime,
  savedBy: Author,
  isNew: z.boolean(),
  isDeleted: z.boolean(),
});

export const WikiView = z.object({
  pages: z.array(PageLine),
  mayWrite: z.boolean(),
  /** Who did how much: revisions and words added. */
  writers: z.array(z.object({ member: Author, revisions: z.number().int(), added: z.number().int() })),
});
export type WikiView = z.infer<typeof WikiView>;

export const RevisionLine = z.object({
  number: z.number().int(),
  title: z.string(),
  author: Author,
  savedAt: DateTime,
  words: z.number().int(),
  added: z.number().int(),
  removed: z.number().int(),
});
export type RevisionLine = z.infer<typeof RevisionLine>;

export const RevisionView = RevisionLine.extend({ text: StoredRichText });
export type RevisionView = z.infer<typeof RevisionView>;

export const PageView = z.object({
  id: PageId,
  title: z.string(),
  text: StoredRichText,
  words: z.number().int(),
  revision: z.number().int(),
  savedAt: DateTime,
  savedBy: Author,
  isDeleted: z.boolean(),
  mayWrite: z.boolean(),
  /** Newest first. */
  revisions: z.array(RevisionLine),
});
export type PageView = z.infer<typeof PageView>;

/** The page makes the id, so that a press that is sent twice makes one page. */
export const AddPage = z.strictObject({ id: PageId, title: PageTitle });
export type AddPage = z.infer<typeof AddPage>;

/** `basedOn` is the revision that the writer began from: a later one is shown, never overwritten. */
export const SavePage = z.strictObject({
  title: PageTitle,
  text: RichText,
  basedOn: z.number().int().min(0),
});
export interface SavePage {
  readonly title: string;
  readonly text: RichText;
  readonly basedOn: number;
}
