import { z } from 'zod';
import { RosterAttribute } from './roster.js';
import { DateTime, EnrolmentId, GroupId, GroupSetId } from './common.js';

export const mostGroups = 500;
const Capacity = z.number().int().min(1, 'A group holds at least 1.').max(1000).nullable();
const GroupName = z.string().trim().min(1, 'Give the group a name.').max(80);

/** Students choose their own places, from when until when; null: at once, and until the set is frozen. */
export const SignUpSettings = z
  .strictObject({ opens: DateTime.nullable(), closes: DateTime.nullable(), showsNames: z.boolean() })
  .refine(({ opens, closes }) => opens === null || closes === null || opens < closes, { path: ['closes'], error: 'It has to close after it opens.' });
export type SignUpSettings = z.infer<typeof SignUpSettings>;

const SetName = z.string().trim().min(1, 'Give the set a name.').max(120);
/** What happens to somebody who joins the course once the set is filled. */
const Latecomers = z.enum(['leave', 'smallest']);

/** A new set: so many groups, or groups of so many. */
export const CreateGroupSet = z.strictObject({
  name: SetName,
  shape: z.discriminatedUnion('by', [
    z.strictObject({ by: z.literal('count'), groups: z.number().int().min(1, 'Make at least 1 group.').max(mostGroups, `${mostGroups} groups are the most.`) }),
    z.strictObject({ by: z.literal('size'), size: z.number().int().min(1, 'A group has at least 1 member.').max(1000), how: z.enum(['spread', 'fill']) }),
  ]),
  capacity: Capacity,
  pattern: z.string().trim().max(80),
  names: z.array(z.string().max(80)).max(mostGroups),
  signUp: SignUpSettings.nullable().default(null),
});
export type CreateGroupSet = z.input<typeof CreateGroupSet>;

export const GroupSetView = z.object({
  id: GroupSetId,
  name: z.string(),
  capacity: z.number().int().nullable(),
  groupCount: z.number().int(),
  unplaced: z.number().int(),
  /** Its groups are the registrar's sections, and a sync moves people between them. */
  isSynchronised: z.boolean(),
  description: z.string(),
  /** Whether its members read the description. */
  isDescriptionShown: z.boolean(),
  latecomers: Latecomers,
  /** null: students do not choose. */
  signUp: SignUpSettings.nullable(),
  /** Since when students stay where they are; null: they do not. */
  frozenAt: DateTime.nullable(),
  version: z.number().int(),
});
export type GroupSetView = z.infer<typeof GroupSetView>;
export const GroupSetList = z.object({
  sets: z.array(GroupSetView),
  /** Out of the way, the latest first. */
  putAway: z.array(z.object({ id: GroupSetId, name: z.string() })),
  students: z.number().int(),
});
export type GroupSetList = z.infer<typeof GroupSetList>;

export const BoardGroup = z.object({
  id: GroupId,
  number: z.number().int(),
  name: z.string(),
  capacity: z.number().int().nullable(),
  /** No student joins or leaves by themselves, and nobody is dealt into it. */
  isLocked: z.boolean(),
  version: z.number().int(),
});
export type BoardGroup = z.infer<typeof BoardGroup>;

export const BoardStudent = z.object({
  enrolmentId: EnrolmentId,
  name: z.string(),
  familyName: z.string().nullable(),
  reading: z.string().nullable(),
  email: z.string(),
  number: z.string().nullable(),
  attributes: z.record(z.string(), z.string()),
  groupId: GroupId.nullable(),
  /** Hand-ins of the group they are in that they are credited with. */
  handIns: z.number().int(),
});
export type BoardStudent = z.infer<typeof BoardStudent>;

/** All that the Board of one set shows. */
export const BoardView = z.object({
  set: GroupSetView,
  groups: z.array(BoardGroup),
  students: z.array(BoardStudent),
  attributes: z.array(RosterAttribute),
});
export type BoardView = z.infer<typeof BoardView>;

const MoveShape = z.strictObject({ student: EnrolmentId, from: GroupId.nullable(), to: GroupId.nullable() });
export const PlaceRequest = z.strictObject({ moves: z.array(MoveShape).min(1).max(5000) });
export type PlaceRequest = z.infer<typeof PlaceRequest>;

export const PlaceResult = z.object({ unplaced: z.number().int() });
export type PlaceResult = z.infer<typeof PlaceResult>;

export const EditGroup = z.strictObject({ name: GroupName, capacity: Capacity, isLocked: z.boolean().optional(), version: z.number().int() });
export type EditGroup = z.infer<typeof EditGroup>;

export const SetSettings = z.strictObject({
  name: SetName,
  description: z.string().trim().max(2000, '2,000 characters are the most.'),
  isDescriptionShown: z.boolean(),
  capacity: Capacity,
  latecomers: Latecomers,
  signUp: SignUpSettings.nullable(),
  version: z.number().int(),
});
export type SetSettings = z.infer<typeof SetSettings>;

/** A set like this one under another name. */
export const CopySet = z.strictObject({ name: SetName, withMembers: z.boolean() });
export type CopySet = z.infer<typeof CopySet>;

export const PutAwayRequest = z.strictObject({ isPutAway: z.boolean() });
export type PutAwayRequest = z.infer<typeof PutAwayRequest>;

/** Every set that is shown, in the order in which it is to be shown. */
export const SetOrder = z.strictObject({ setIds: z.array(GroupSetId).min(1).max(500) });
export type SetOrder = z.infer<typeof SetOrder>;

export const FreezeRequest = z.strictObject({ isFrozen: z.boolean() });
export type FreezeRequest = z.infer<typeof FreezeRequest>;

/** What a student sees of a set in which they choose their place. */
export const SignUpView = z.object({
  set: z.object({ id: GroupSetId, name: z.string(), description: z.string(), opens: DateTime.nullable(), closes: DateTime.nullable() }),
  state: z.enum(['not-open-yet', 'open', 'closed', 'frozen']),
  groups: z.array(
    z.object({
      id: GroupId,
      number: z.number().int(),
      name: z.string(),
      members: z.number().int(),
      capacity: z.number().int().nullable(),
      isLocked: z.boolean(),
      /** null: names are for its members only. */
      names: z.array(z.object({ name: z.string(), reading: z.string().nullable(), isYou: z.boolean() })).nullable(),
    }),
  ),
  yours: GroupId.nullable(),
  /** Why the reader stays where they are, whatever is free; null: they may choose. */
  bound: z.string().nullable(),
  chosen: z.number().int(),
  students: z.number().int(),
});
export type SignUpView = z.infer<typeof SignUpView>;

/** Where somebody has been, the latest first. */
export const PlacesOf = z.object({
  places: z.array(
    z.object({
      set: z.string(),
      number: z.number().int(),
      name: z.string(),
      from: DateTime,
      until: DateTime.nullable(),
      placedBy: z.string(),
      /** null: they are there now. */
      endedBy: z.string().nullable(),
    }),
  ),
});
export type PlacesOf = z.infer<typeof PlacesOf>;

/** null: give the place back. */
export const TakePlace = z.strictObject({ groupId: GroupId.nullable() });
export type TakePlace = z.infer<typeof TakePlace>;

/** The sets of a course in which the reader may choose, or could. */
export const SignUpList = z.object({
  signUps: z.array(
    z.object({
      setId: GroupSetId,
      name: z.string(),
      state: SignUpView.shape.state,
      opens: DateTime.nullable(),
      closes: DateTime.nullable(),
      yours: z.object({ number: z.number().int(), name: z.string() }).nullable(),
    }),
  ),
});
export type SignUpList = z.infer<typeof SignUpList>;
