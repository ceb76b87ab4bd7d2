import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { ActivityId, HeadingId } from './common.js';

const Title = z.string().overwrite(oneLine).min(1, 'Give it a title.').max(120);

export const HeadingView = z.object({
  id: HeadingId,
  title: z.string(),
  /** For renaming it; null: the asker may not. */
  version: z.number().int().nullable(),
  activityIds: z.array(ActivityId),
});
export type HeadingView = z.infer<typeof HeadingView>;

/** The order in which a course shows its activities, as far as the asker sees them. */
export const OutlineView = z.object({
  headings: z.array(HeadingView),
  /** Under no heading; after all that are. */
  loose: z.array(ActivityId),
});
export type OutlineView = z.infer<typeof OutlineView>;

export const NewHeading = z.strictObject({ title: Title });
export type NewHeading = z.infer<typeof NewHeading>;

export const RenameHeading = z.strictObject({ title: Title, version: z.number().int() });
export type RenameHeading = z.infer<typeof RenameHeading>;

/** before null: to the end. */
export const MoveHeading = z.strictObject({ before: HeadingId.nullable() });
export type MoveHeading = z.infer<typeof MoveHeading>;

/** headingId null: under no heading. before null, or by now under another: to the end. */
export const PlaceActivity = z.strictObject({
  headingId: HeadingId.nullable(),
  before: ActivityId.nullable(),
});
export type PlaceActivity = z.infer<typeof PlaceActivity>;

/** `was`: what takes it back. */
export const ActivityPlaced = z.object({ outline: OutlineView, was: PlaceActivity });
export type ActivityPlaced = z.infer<typeof ActivityPlaced>;
export const HeadingMoved = z.object({ outline: OutlineView, was: MoveHeading });
export type HeadingMoved = z.infer<typeof HeadingMoved>;
