import { z } from 'zod';
import { halfDays } from '@jigsaw/core/course';
import { only } from '@jigsaw/core/lists';
import { mostGroups } from '@jigsaw/core/sets';
import { oneLine } from '@jigsaw/core/text';
import { DateTime, EnrolmentId, GroupId, GroupSetId } from './common.js';

export const Capacity = z.number().int().min(1, 'A group holds at least 1.').max(1000).nullable();
export const GroupName = z.string().overwrite(oneLine).min(1, 'Give the group a name.').max(80);
/** Students choose their own places, from when until when; null: at once, and until the set is frozen. */
export const SignUpSettings = z
  .strictObject({ opens: DateTime.nullable(), closes: DateTime.nullable(), showsNames: z.boolean() })
  .refine(({ opens, closes }) => opens === null || closes === null || opens < closes, {
    path: ['closes'],
    error: 'It has to close after it opens.',
  });
export type SignUpSettings = z.infer<typeof SignUpSettings>;
export const SetName = z.string().overwrite(oneLine).min(1, 'Give the set a name.').max(120);
/** What happens to someone who joins the course once the set is filled. */
const Latecomers = z.enum(['leave', 'smallest']);
const Named = z.array(EnrolmentId).min(2, 'Name two people or more.').max(50);
const AttributeName = z.string().overwrite(oneLine).min(1).max(80);
/** Shapes of the rules but the last, whose earlier sets are named by people and looked up by the page.
 * @param people that a rule may name, `attribute` what it may be about. */
export const ruleShapes = <People extends z.ZodType, Attribute extends z.ZodType>(
  people: People,
  attribute: Attribute,
) =>
  [
    z.strictObject({ kind: z.literal('together'), students: people }),
    z.strictObject({ kind: z.literal('apart'), students: people }),
    z.strictObject({ kind: z.enum(['spread', 'alike']), attribute, as: z.enum(['category', 'number']) }),
    z.strictObject({ kind: z.literal('nobody-alone'), attribute }),
    z.strictObject({ kind: z.literal('common-time'), attribute, wanted: z.number().int().min(1).max(14) }),
  ] as const;
/** What a deal is to bring about. The first two hold without exception; the others are wishes, the first the heaviest. */
export const DealRule = z.discriminatedUnion('kind', [
  ...ruleShapes(Named, AttributeName),
  z.strictObject({
    kind: z.literal('fresh'),
    setIds: z.array(GroupSetId).min(1, 'Choose an earlier set.').max(20),
  }),
]);
export type DealRule = z.infer<typeof DealRule>;
/** @param version of the set, as they were read. */
export const SetRules = z.strictObject({
  rules: z.array(DealRule).max(60, '60 rules are the most.'),
  version: z.number().int(),
});
export type SetRules = z.infer<typeof SetRules>;
/** A new set: so many groups, or groups of so many. */
export const GroupSetDraft = z.strictObject({
  name: SetName,
  shape: z.discriminatedUnion('by', [
    z.strictObject({
      by: z.literal('count'),
      groups: z
        .number()
        .int()
        .min(1, 'Make at least 1 group.')
        .max(mostGroups, `${mostGroups} groups are the most.`),
    }),
    z.strictObject({
      by: z.literal('size'),
      size: z.number().int().min(1, 'A group has at least 1 member.').max(1000),
      how: z.enum(['spread', 'fill']),
    }),
    /** Groups come to be when students hand in with their partners. */
    z.strictObject({ by: z.literal('hand-in') }),
  ]),
  capacity: Capacity,
  pattern: z.string().overwrite(oneLine).max(80),
  names: z.array(z.string().max(80)).max(mostGroups),
  isExclusive: z.boolean().default(true),
  signUp: SignUpSettings.nullable().default(null),
});
export type GroupSetDraft = z.output<typeof GroupSetDraft>;

/** A set like this one under another name. */
export const SetCopyDraft = z.strictObject({ name: SetName, withMembers: z.boolean() });
export type SetCopyDraft = z.output<typeof SetCopyDraft>;

export const GroupSetView = z.object({
  id: GroupSetId,
  name: z.string(),
  capacity: z.number().int().nullable(),
  groupCount: z.number().int(),
  unplaced: z.number().int(),
  /** Its groups are the registrar's sections, and a sync moves people between them. */
  isSynchronised: z.boolean(),
  /** Whether no one is in two of its groups. */
  isExclusive: z.boolean(),
  /** Whether a group may have a leader among its members. */
  hasLeaders: z.boolean(),
  /** Whether members name their own group and give it a motto. */
  membersName: z.boolean(),
  isFormedAtHandIn: z.boolean(),
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
  archived: z.array(z.object({ id: GroupSetId, name: z.string() })),
  students: z.number().int(),
});
export type GroupSetList = z.infer<typeof GroupSetList>;
/** What is said of a group beside its name, for those who choose a place. */
export const GroupDetails = z.strictObject({
  /** “Wed 14:00”, in someone's words. */
  time: z.string().overwrite(oneLine).max(80, '80 characters are the most.'),
  place: z.string().overwrite(oneLine).max(80, '80 characters are the most.'),
  about: z.string().overwrite(oneLine).max(200, '200 characters are the most.'),
  /** Its half-day of the week, for who is free then; null: not said. */
  halfDay: z.enum(halfDays).nullable(),
});
export type GroupDetails = z.infer<typeof GroupDetails>;
export const noDetails: GroupDetails = { time: '', place: '', about: '', halfDay: null };
/** What the people at expert tables become experts in. */
export const Topic = z.object({ name: z.string(), about: z.string() });
export type Topic = z.infer<typeof Topic>;
export const BoardGroup = z.object({
  id: GroupId,
  number: z.number().int(),
  name: z.string(),
  capacity: z.number().int().nullable(),
  /** No student joins or leaves by themselves, and no one is dealt into it. */
  isLocked: z.boolean(),
  motto: z.string(),
  details: GroupDetails,
  /** Of an expert table: which topic of its set, from 1. */
  topic: z.number().int().nullable(),
  /** Staff who lead it. */
  leads: z.array(z.object({ enrolmentId: EnrolmentId, name: z.string() })),
  version: z.number().int(),
});
export type BoardGroup = z.infer<typeof BoardGroup>;
export const EditGroup = z.strictObject({
  name: GroupName,
  capacity: Capacity,
  isLocked: z.boolean().optional(),
  details: GroupDetails.optional(),
  version: z.number().int(),
});
export type EditGroup = z.infer<typeof EditGroup>;
/** Many groups at once: names, places and locks; groups that are added, and such as are removed. All of it or nothing. */
export const EditGroups = z.strictObject({
  groups: z
    .array(
      z.strictObject({
        id: GroupId.nullable(),
        name: GroupName,
        capacity: Capacity,
        isLocked: z.boolean(),
        /** Left out: as they are. */
        details: GroupDetails.optional(),
        version: z.number().int(),
      }),
    )
    .max(mostGroups, `${mostGroups} groups are the most.`),
  removed: z.array(GroupId).max(mostGroups),
  /** Places of every group that has no number of its own; left out: as they are. */
  capacity: Capacity.optional(),
});
export type EditGroups = z.infer<typeof EditGroups>;
/** All topics of expert tables in their order. Tables of a topic that is left out are removed; a topic has as many tables as it says. */
export const EditTopics = z.strictObject({
  topics: z
    .array(
      z.strictObject({
        /** Which it was, from 1; null: it is new. */
        topic: z.number().int().min(1).nullable(),
        name: GroupName,
        about: z.string().overwrite(oneLine).max(200, '200 characters are the most.'),
        tables: z.number().int().min(1, 'A topic has at least 1 table.').max(100, '100 tables are the most.'),
      }),
    )
    .min(1, 'Name a topic.')
    .max(40, '40 topics are the most.')
    .refine(
      (topics) => new Set(topics.map((each) => each.name.toLowerCase())).size === topics.length,
      'Two topics have the same name.',
    ),
  /** Of the set, as it was read. */
  version: z.number().int(),
});
export type EditTopics = z.infer<typeof EditTopics>;
/** Who of the staff lead each of these groups from now on; other groups stay as they are. */
export const LeadGroups = z.strictObject({
  leads: z
    .array(z.strictObject({ groupId: GroupId, enrolmentIds: z.array(EnrolmentId).max(50) }))
    .min(1)
    .max(mostGroups),
});
export type LeadGroups = z.infer<typeof LeadGroups>;
export const BoardGroups = z.object({ groups: z.array(BoardGroup) });
export type BoardGroups = z.infer<typeof BoardGroups>;
/** The name and motto that members give their group. */
export const NameGroup = z.strictObject({
  name: GroupName,
  motto: z.string().overwrite(oneLine).max(120, '120 characters are the most.'),
  version: z.number().int(),
});
export type NameGroup = z.infer<typeof NameGroup>;
/** `name` and `motto` of the group as its members see it. */
export const GroupNaming = z.object({
  id: GroupId,
  name: z.string(),
  motto: z.string(),
  version: z.number().int(),
});
export type GroupNaming = z.infer<typeof GroupNaming>;
export const SetSettings = z.strictObject({
  name: SetName,
  description: z.string().trim().max(2000, '2,000 characters are the most.'),
  isDescriptionShown: z.boolean(),
  capacity: Capacity,
  isExclusive: z.boolean(),
  hasLeaders: z.boolean(),
  membersName: z.boolean(),
  latecomers: Latecomers,
  signUp: SignUpSettings.nullable(),
  version: z.number().int(),
});
export type SetSettings = z.infer<typeof SetSettings>;
const settings = Object.keys(SetSettings.shape) as (keyof SetSettings)[];
/** As they stand, to be sent with some of them changed. */
export const settingsOf = (set: SetSettings): SetSettings => only(set, settings);
export const ArchiveRequest = z.strictObject({ isArchived: z.boolean() });
export type ArchiveRequest = z.infer<typeof ArchiveRequest>;
/** Every set that is shown, in the order in which it is to be shown. */
export const SetOrder = z.strictObject({ setIds: z.array(GroupSetId).min(1).max(500) });
export type SetOrder = z.infer<typeof SetOrder>;
export const FreezeRequest = z.strictObject({ isFrozen: z.boolean() });
export type FreezeRequest = z.infer<typeof FreezeRequest>;

/** A group as it is shown beside work: by number and name. */
export const GroupTag = z.object({
  id: GroupId,
  setId: GroupSetId,
  setName: z.string(),
  number: z.number().int(),
  name: z.string(),
});
export type GroupTag = z.infer<typeof GroupTag>;
