import { z } from 'zod';
import { DateTime, FileId } from './common.js';
import { Author } from './course.js';

export const OwnVersion = z.object({
  /** 0: as it was attached. */
  number: z.number().int(),
  name: z.string(),
  mediaType: z.string(),
  sizeBytes: z.number().int(),
  /** Who put it there, and when; null: as it was attached. */
  by: Author.nullable(),
  at: DateTime.nullable(),
  /** The version whose bytes these are again; null: they are new. */
  restored: z.number().int().nullable(),
});
export type OwnVersion = z.infer<typeof OwnVersion>;

/** A file of which each copy has its own. */
export const OwnFile = z.object({
  originalId: FileId,
  /** As it was attached. */
  name: z.string(),
  /** The newest first, down to what was attached; never none. */
  versions: z.array(OwnVersion),
});
export type OwnFile = z.infer<typeof OwnFile>;

export const OwnFiles = z.object({ files: z.array(OwnFile), mayPut: z.boolean() });
export type OwnFiles = z.infer<typeof OwnFiles>;

/** What was there before, as the newest version again.
 * @param number which.
 * @param newest the newest that the person had in view. */
export const RestoreOwnVersion = z.strictObject({
  number: z.number().int().min(0),
  newest: z.number().int(),
});
export type RestoreOwnVersion = z.infer<typeof RestoreOwnVersion>;
