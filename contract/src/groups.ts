import { z } from 'zod';
import { EnrolmentId, GroupId, GroupSetId } from './common.js';

export const mostGroups = 500;
const Capacity = z.number().int().min(1, 'A group holds at least 1.').max(1000).nullable();
const GroupName = z.string().trim().min(1, 'Give the group a name.').max(80);

/** A new set: so many groups, or groups of so many. */
export const CreateGroupSet = z.strictObject({
  name: z.string().trim().min(1, 'Give the set a name.').max(120),
  shape: z.discriminatedUnion('by', [
    z.strictObject({ by: z.literal('count'), groups: z.number().int().min(1, 'Make at least 1 group.').max(mostGroups, `${mostGroups} groups are the most.`) }),
    z.strictObject({ by: z.literal('size'), size: z.number().int().min(1, 'A group has at least 1 member.').max(1000), how: z.enum(['spread', 'fill']) }),
  ]),
  capacity: Capacity,
  pattern: z.string().trim().max(80),
  names: z.array(z.string().max(80)).max(mostGroups),
});
export type CreateGroupSet = z.infer<typeof CreateGroupSet>;

export const GroupSetView = z.object({
  id: GroupSetId,
  name: z.string(),
  capacity: z.number().int().nullable(),
  groupCount: z.number().int(),
  unplaced: z.number().int(),
  /** Its groups are the registrar's sections, and a sync moves people between them. */
  isSynchronised: z.boolean(),
});
export type GroupSetView = z.infer<typeof GroupSetView>;
export const GroupSetList = z.object({ sets: z.array(GroupSetView), students: z.number().int() });
export type GroupSetList = z.infer<typeof GroupSetList>;

export const BoardGroup = z.object({
  id: GroupId,
  number: z.number().int(),
  name: z.string(),
  capacity: z.number().int().nullable(),
  version: z.number().int(),
});
export type BoardGroup = z.infer<typeof BoardGroup>;

export const BoardStudent = z.object({
  enrolmentId: EnrolmentId,
  name: z.string(),
  familyName: z.string().nullable(),
  reading: z.string().nullable(),
  attributes: z.record(z.string(), z.string()),
  groupId: GroupId.nullable(),
});
export type BoardStudent = z.infer<typeof BoardStudent>;

/** All that the Board of one set shows. */
export const BoardView = z.object({ set: GroupSetView, groups: z.array(BoardGroup), students: z.array(BoardStudent) });
export type BoardView = z.infer<typeof BoardView>;

const MoveShape = z.strictObject({ student: EnrolmentId, from: GroupId.nullable(), to: GroupId.nullable() });
export const PlaceRequest = z.strictObject({ moves: z.array(MoveShape).min(1).max(5000) });
export type PlaceRequest = z.infer<typeof PlaceRequest>;

export const PlaceResult = z.object({ unplaced: z.number().int() });
export type PlaceResult = z.infer<typeof PlaceResult>;

export const EditGroup = z.strictObject({ name: GroupName, capacity: Capacity, version: z.number().int() });
export type EditGroup = z.infer<typeof EditGroup>;
