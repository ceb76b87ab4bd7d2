import { z } from 'zod';
import { DateTime, ShelfFileId } from './common.js';
import { Author } from './course.js';
import { OwnVersion } from './ownFiles.js';

/** What someone put there; the first is number 1. */
const ShelfVersion = OwnVersion.extend({ by: Author, at: DateTime });
export type ShelfVersion = z.infer<typeof ShelfVersion>;

/** What the members of a group share with one another. */
export const ShelfFile = z.object({
  id: ShelfFileId,
  /** The newest first; never none. */
  versions: z.array(ShelfVersion),
  /** Someone else put the newest there since the asker last looked. */
  isNew: z.boolean(),
  mayRemove: z.boolean(),
});
export type ShelfFile = z.infer<typeof ShelfFile>;

export const ShelfView = z.object({
  /** What was changed last first. */
  files: z.array(ShelfFile),
  /** Those that the asker can restore, the last removed first. */
  removed: z.array(z.object({ id: ShelfFileId, name: z.string(), by: Author, at: DateTime })),
  mayPut: z.boolean(),
  /** Of all versions, those of removed files too. */
  bytes: z.number().int(),
});
export type ShelfView = z.infer<typeof ShelfView>;

/** The asker has looked at the shelf.
 * upTo: when the newest was put there of what was shown to them. */
export const MarkSeenOnShelf = z.strictObject({ upTo: DateTime });
export type MarkSeenOnShelf = z.infer<typeof MarkSeenOnShelf>;
