import { z } from 'zod';
import { EnrolmentId, NoteId } from './common.js';
import { Author } from './course.js';

const NoteText = z.string().regex(/\S/, 'Write something.').max(5000, '5,000 characters are the most.');

/** What staff noted about a group, for staff alone. */
export const NoteView = z.object({
  id: NoteId,
  text: z.string(),
  /** The member that it is about; null: the group. */
  about: z.object({ enrolmentId: EnrolmentId, name: z.string(), reading: z.string().nullable() }).nullable(),
  author: Author,
  createdAt: z.iso.datetime(),
  editedAt: z.iso.datetime().nullable(),
  version: z.number().int(),
  mayRemove: z.boolean(),
});
export type NoteView = z.infer<typeof NoteView>;
/** The newest first. */
export const NoteList = z.object({ notes: z.array(NoteView) });
export type NoteList = z.infer<typeof NoteList>;

/** The page names a note before it is sent, so that sending it twice writes it once. */
export const AddNote = z.strictObject({ id: NoteId, text: NoteText, about: EnrolmentId.nullable() });
export type AddNote = z.infer<typeof AddNote>;
export const ChangeNote = z.strictObject({ text: NoteText, version: z.number().int() });
export type ChangeNote = z.infer<typeof ChangeNote>;
