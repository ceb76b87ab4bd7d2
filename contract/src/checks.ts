import { z } from 'zod';
import { ActivityId, AudienceId, DateTime, EnrolmentId, GroupId, GroupSetId } from './common.js';

const of = { activityId: ActivityId };
/** How many, and who they are where they are few enough to be named. */
const Some = z.object({ count: z.number().int(), named: z.array(EnrolmentId) });
/** Something in a course that its instructor will not have meant, as core/checks says it. */
export const CheckFound = z.discriminatedUnion('code', [
  z.object({ code: z.literal('reaches-no-one'), ...of, audienceId: AudienceId.nullable() }),
  z.object({ code: z.literal('groups-left-out'), ...of, setId: GroupSetId, groupIds: z.array(GroupId) }),
  z.object({ code: z.literal('unplaced'), setId: GroupSetId, students: Some, activityIds: z.array(ActivityId) }),
  z.object({ code: z.literal('live-too-late'), ...of, goesLiveAt: DateTime, over: z.enum(['due', 'closes']), at: DateTime }),
  z.object({ code: z.literal('due-before-open'), ...of, who: z.union([z.object({ groupId: GroupId }), z.object({ enrolmentId: EnrolmentId })]), due: DateTime, opens: DateTime }),
  z.object({ code: z.literal('due-together'), activityIds: z.tuple([ActivityId, ActivityId]), due: z.tuple([DateTime, DateTime]), students: Some, inGroups: z.array(GroupId) }),
  z.object({ code: z.literal('leads-none'), enrolmentId: EnrolmentId }),
  z.object({ code: z.literal('rubric-points'), ...of, sum: z.string(), points: z.string().nullable() }),
  z.object({ code: z.literal('typed-placeholder'), ...of, words: z.array(z.string()) }),
  z.object({ code: z.literal('line-for-no-one'), ...of, groupIds: z.array(GroupId) }),
  z.object({ code: z.literal('cannot-be-done'), ...of, why: z.string(), groupIds: z.array(GroupId) }),
]); // prettier-ignore
export type CheckFound = z.infer<typeof CheckFound>;

/** Says the same thing as long as what is amiss is the same. */
export const CheckId = z.string().regex(/^[0-9a-f]{32}$/);

export const CheckView = z.object({
  id: CheckId,
  found: CheckFound,
  /** Why it may stay as it is; null: no one has said so. */
  dismissed: z.object({ reason: z.string(), by: z.string(), at: DateTime }).nullable(),
});
export type CheckView = z.infer<typeof CheckView>;

/** What is to be checked in a course, and what those things are called that it is about. */
export const CheckList = z.object({
  checks: z.array(CheckView),
  activities: z.array(z.object({ activityId: ActivityId, title: z.string(), kind: z.string() })),
  groups: z.array(z.object({ groupId: GroupId, setId: GroupSetId, number: z.number().int(), name: z.string() })),
  sets: z.array(z.object({ setId: GroupSetId, name: z.string() })),
  people: z.array(z.object({ enrolmentId: EnrolmentId, name: z.string() })),
  audiences: z.array(z.object({ audienceId: AudienceId, name: z.string() })),
}); // prettier-ignore
export type CheckList = z.infer<typeof CheckList>;

export const DismissCheck = z.strictObject({
  id: CheckId,
  reason: z.string().trim().min(1, 'Say why it may stay as it is.').max(500),
});
export type DismissCheck = z.infer<typeof DismissCheck>;
