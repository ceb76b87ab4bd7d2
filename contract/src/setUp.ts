import { z } from 'zod';
import { ActivityId } from './common.js';
import { ExpertsDraft } from './dealing.js';
import { ActivityDraft } from './release.js';
import { GroupSetDraft, GroupSetView, SetCopyDraft } from './sets.js';

/** What each group of a new set gets: written with it, and released to all its groups at once or kept as a draft. */
export const NewSetActivity = z.strictObject({ draft: ActivityDraft, isReleased: z.boolean() });
export type NewSetActivity = { readonly draft: ActivityDraft; readonly isReleased: boolean };
type WithActivities<Request> = Omit<Request, 'activities'> & {
  readonly activities?: readonly NewSetActivity[];
};
const ActivitiesForGroups = z
  .array(NewSetActivity)
  .max(12, '12 activities are the most; write the others when the set is there.')
  .default([]);
export const MadeActivity = z.object({
  id: ActivityId,
  title: z.string(),
  kind: z.string(),
  isReleased: z.boolean(),
  copies: z.number().int(),
});
export type MadeActivity = z.infer<typeof MadeActivity>;

/** A set that was made now, with what its groups got. */
export const MadeGroupSet = GroupSetView.extend({ activities: z.array(MadeActivity) });
export type MadeGroupSet = z.infer<typeof MadeGroupSet>;

/** A new set together with what each of its groups gets. */
export const CreateGroupSet = GroupSetDraft.extend({ activities: ActivitiesForGroups });
export type CreateGroupSet = WithActivities<z.input<typeof CreateGroupSet>>;

export const CopySet = SetCopyDraft.extend({ activities: ActivitiesForGroups });
export type CopySet = WithActivities<z.input<typeof CopySet>>;

export const DeriveExperts = ExpertsDraft.extend({ activities: ActivitiesForGroups });
export type DeriveExperts = WithActivities<z.input<typeof DeriveExperts>>;
