import { z } from 'zod';
import { ActivityId, DateTime, GroupId, GroupSetId, PersonName } from './common.js';
import { PlaceRequest } from './placing.js';
import { ChangeReach } from './release.js';

/** An act that changes who sees what, as it would be sent. */
export const Planned = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('place'), setId: GroupSetId, moves: PlaceRequest.shape.moves }),
  z.strictObject({ act: z.literal('withdraw'), activityId: ActivityId }),
  ChangeReach.extend({ act: z.literal('reach'), activityId: ActivityId }),
]);
export type Planned = z.infer<typeof Planned>;

/** What a student has of an activity, as core/foreseen says it. */
const HeldView = z.object({
  access: z.enum(['open', 'read-only', 'listed', 'hidden']),
  own: z.array(z.object({ groupId: GroupId.nullable(), due: DateTime.nullable() })),
  reads: z.number().int(),
});
export type HeldView = z.infer<typeof HeldView>;

/** Of more groups than that it is told once if the same happens to each. */
export const mostGroups = 4;

/** So many are named; of more there is the number. */
export const mostNamed = 4;

/** Who has something else of what once the act is carried out; none: no one does. */
export const Foreseen = z.object({
  changes: z.array(
    z.object({
      activityId: ActivityId,
      title: z.string(),
      /** All who have the same before and afterwards. */
      students: z.object({ count: z.number().int(), named: z.array(PersonName) }),
      /** So many groups, to the members of each of which it happens with their own copy; null: with the copies that are named. */
      eachOf: z.number().int().nullable(),
      before: HeldView,
      after: HeldView,
    }),
  ),
  /** Those that are in `changes`. */
  groups: z.array(z.object({ groupId: GroupId, number: z.number().int(), name: z.string() })),
});
export type Foreseen = z.infer<typeof Foreseen>;
