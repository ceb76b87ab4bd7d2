import { z } from 'zod';
import { DateTime, EnrolmentId, GroupId, GroupSetId, ToPlace } from './common.js';
import { AssistantsSee, RosterAttribute } from './course.js';
import { BoardGroup, DealRule, GroupDetails, GroupSetView, Topic } from './sets.js';

export const BoardStudent = z.object({
  enrolmentId: EnrolmentId,
  name: z.string(),
  familyName: z.string().nullable(),
  reading: z.string().nullable(),
  email: z.string(),
  number: z.string().nullable(),
  attributes: z.record(z.string(), z.string()),
  /** The groups they are in; one at most where the set is exclusive. */
  seats: z.array(
    z.object({
      groupId: GroupId,
      isLeader: z.boolean(),
      /** Hand-ins of this group that they are credited with. */
      handIns: z.number().int(),
    }),
  ),
});
export type BoardStudent = z.infer<typeof BoardStudent>;
const GroupOfMove = z.object({ number: z.number().int(), name: z.string() });
/** What one person did to places in a set at one moment, on the Board, by a deal, a file or a choice of their own. */
export const MovesAct = z.object({
  at: DateTime,
  by: z.string(),
  isYours: z.boolean(),
  /** Someone chose their own place, or gave it up. */
  isOwnChoice: z.boolean(),
  /** How many people it moved; the first twenty are named. */
  count: z.number().int(),
  /** Of these, how many had no group before, and how many have none after. */
  placed: z.number().int(),
  removed: z.number().int(),
  why: z.string().nullable(),
  moves: z.array(
    z.object({
      enrolmentId: EnrolmentId,
      name: z.string(),
      from: z.array(GroupOfMove),
      to: z.array(GroupOfMove),
    }),
  ),
});
export type MovesAct = z.infer<typeof MovesAct>;
/** The moves in a set and who made them, the latest first. */
export const MovesOf = z.object({
  acts: z.array(MovesAct),
  /** To ask with for what was earlier; null: this is all. */
  before: DateTime.nullable(),
});
export type MovesOf = z.infer<typeof MovesOf>;
/** All that the Board of one set shows. */
export const BoardView = z.object({
  set: GroupSetView,
  groups: z.array(BoardGroup),
  students: z.array(BoardStudent),
  attributes: z.array(RosterAttribute),
  /** Who may be asked to lead a group. */
  staff: z.array(
    z.object({ enrolmentId: EnrolmentId, name: z.string(), role: z.enum(['instructor', 'assistant']) }),
  ),
  assistantsSee: AssistantsSee,
  rules: z.array(DealRule),
  /** Of expert tables: from which group of the home set each student comes. */
  homes: z.array(z.object({ enrolmentId: EnrolmentId, number: z.number().int(), name: z.string() })),
  /** Of expert tables: their topics, and the set whose groups are the homes; none: they are no expert tables. */
  topics: z.array(Topic),
  homeSet: z.object({ id: GroupSetId, name: z.string() }).nullable(),
  /** What happened last; null: no one has a place yet. */
  latest: MovesAct.nullable(),
});
export type BoardView = z.infer<typeof BoardView>;
const MoveShape = z.strictObject({
  student: EnrolmentId,
  from: GroupId.nullable(),
  to: GroupId.nullable(),
  leads: z.strictObject({ from: z.boolean(), to: z.boolean() }).optional(),
});
export const PlaceRequest = z.strictObject({
  moves: z.array(MoveShape).min(1).max(5000),
  /** Kept in the history of everyone who moves. */
  why: z.string().trim().max(300, '300 characters are the most.').default(''),
  /** stays: handed-in work keeps those who are credited with it. joins: anyone who comes to a group is credited with what it handed in last,
   * too. taken-back: undoes that. */
  credit: z.enum(['stays', 'joins', 'taken-back']).default('stays'),
});
export type PlaceRequest = z.output<typeof PlaceRequest>;

export const PlaceResult = z.object({
  /** In this set. */
  unplaced: z.number().int(),
  toPlace: ToPlace,
  /** With which hand-ins of their groups those who moved are credited; nothing of who has none. */
  credited: z.array(z.object({ enrolmentId: EnrolmentId, groupId: GroupId, handIns: z.number().int() })),
});
export type PlaceResult = z.infer<typeof PlaceResult>;
/** What a student sees of a set in which they choose their place. */
export const SignUpView = z.object({
  set: z.object({
    id: GroupSetId,
    name: z.string(),
    description: z.string(),
    opens: DateTime.nullable(),
    closes: DateTime.nullable(),
  }),
  state: z.enum(['not-open-yet', 'open', 'closed', 'frozen']),
  groups: z.array(
    z.object({
      id: GroupId,
      number: z.number().int(),
      name: z.string(),
      members: z.number().int(),
      capacity: z.number().int().nullable(),
      isLocked: z.boolean(),
      details: GroupDetails,
      /** Whether the reader is free when it meets; null: one of both is not known. */
      fits: z.boolean().nullable(),
      /** Whether the reader asked to be told of a free place, and how many did. */
      isAwaited: z.boolean(),
      awaiting: z.number().int(),
      /** null: names are for its members only. */
      names: z
        .array(z.object({ name: z.string(), reading: z.string().nullable(), isYou: z.boolean() }))
        .nullable(),
    }),
  ),
  yours: GroupId.nullable(),
  /** Why the reader stays where they are, whatever is free; null: they may choose. */
  bound: z.string().nullable(),
  /** What happened to places in the last hour, the latest first: how many each group has gained or lost, and no names. */
  latest: z.array(
    z.object({ at: DateTime, groupId: GroupId, what: z.enum(['taken', 'came-free', 'filled']) }),
  ),
  chosen: z.number().int(),
  students: z.number().int(),
});
export type SignUpView = z.infer<typeof SignUpView>;
/** Where someone has been, the latest first. */
export const PlacesOf = z.object({
  places: z.array(
    z.object({
      set: z.string(),
      number: z.number().int(),
      name: z.string(),
      from: DateTime,
      until: DateTime.nullable(),
      placedBy: z.string(),
      why: z.string().nullable(),
      endedWhy: z.string().nullable(),
      /** null: they are there now. */
      endedBy: z.string().nullable(),
    }),
  ),
});
export type PlacesOf = z.infer<typeof PlacesOf>;
/** null: give the place back. */
export const TakePlace = z.strictObject({ groupId: GroupId.nullable() });
export type TakePlace = z.infer<typeof TakePlace>;
/** To be told by mail when a place in this group comes free, or no longer. */
export const AwaitPlace = z.strictObject({ isAwaited: z.boolean() });
export type AwaitPlace = z.infer<typeof AwaitPlace>;
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
