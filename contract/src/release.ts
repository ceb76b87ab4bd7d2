import { z } from 'zod';
import { inOrder } from '@jigsaw/core/release';
import { ActivityId, CopyId, DateTime, GroupId, GroupSetId, Points, ReleaseId } from './common.js';
import { RichText, StoredRichText } from './text.js';

const millis = (at: string | null) => (at === null ? null : Date.parse(at));

export const Schedule = z
  .strictObject({ opens: DateTime.nullable(), due: DateTime.nullable(), closes: DateTime.nullable() })
  .refine(({ opens, due, closes }) => inOrder({ opens: millis(opens), due: millis(due), closes: millis(closes) }), {
    path: ['due'],
    error: 'Opens, due and closes must come in that order.',
  });
export type Schedule = z.infer<typeof Schedule>;

export const LatePolicy = z.strictObject({
  graceMinutes: z.number().int().min(0).max(10_080),
  stepPercent: z.number().int().min(0).max(100),
  periodMinutes: z.number().int().min(1).max(10_080),
  capPercent: z.number().int().min(0).max(100),
});
export type LatePolicy = z.infer<typeof LatePolicy>;

/** What is written once for all copies. */
export const ActivityDraft = z.strictObject({
  title: z.string().trim().min(1, 'Give the assignment a title.').max(200),
  brief: RichText,
  points: Points.refine((value) => Number(value) > 0, 'Points must be above 0.'),
  schedule: Schedule,
  latePolicy: LatePolicy,
});
export type ActivityDraft = Omit<z.input<typeof ActivityDraft>, 'brief'> & { readonly brief: RichText };

export const EditActivity = ActivityDraft.extend({ version: z.number().int() });
export type EditActivity = ActivityDraft & { readonly version: number };

export const ReleaseStateView = z.object({ state: z.enum(['draft', 'scheduled', 'live', 'closed', 'withdrawn']), at: DateTime.nullable() });

export const ReleaseView = z.object({
  id: ReleaseId,
  setId: GroupSetId,
  setName: z.string(),
  state: ReleaseStateView,
  groups: z.number().int(),
  students: z.number().int(),
});
export type ReleaseView = z.infer<typeof ReleaseView>;

export const ActivityView = z.object({
  id: ActivityId,
  kind: z.literal('assignment'),
  title: z.string(),
  brief: StoredRichText,
  points: z.string(),
  schedule: z.object({ opens: DateTime.nullable(), due: DateTime.nullable(), closes: DateTime.nullable() }),
  latePolicy: LatePolicy,
  version: z.number().int(),
  updatedAt: DateTime,
  release: ReleaseView.nullable(),
});
export type ActivityView = z.infer<typeof ActivityView>;
export const ActivityList = z.object({ activities: z.array(ActivityView) });
export type ActivityList = z.infer<typeof ActivityList>;

export const ReleaseRequest = z.strictObject({
  setId: GroupSetId,
  /** Later than now: scheduled. null: at once. */
  goesLiveAt: DateTime.nullable(),
  /** What the person had in view when they pressed: a draft edited meanwhile is not released unseen. */
  version: z.number().int(),
});
export type ReleaseRequest = z.infer<typeof ReleaseRequest>;

/** Who of the class sees what, told in words, before and after release. */
export const ReachView = z.object({
  groups: z.array(z.object({ groupId: GroupId, number: z.number().int(), name: z.string(), members: z.number().int(), copyId: CopyId.nullable() })),
  outside: z.array(z.object({ name: z.string(), reading: z.string().nullable(), why: z.array(z.string()) })),
});
export type ReachView = z.infer<typeof ReachView>;
