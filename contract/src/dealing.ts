import { z } from 'zod';
import type { Clash } from '@jigsaw/core/dealing';
import { EnrolmentId, GroupId } from './common.js';
import { Capacity, GroupName, ruleShapes, SetName } from './sets.js';

const Text = z.string().max(300);
const Attribute = z.string().max(80);
const People = z.array(EnrolmentId).max(20_000);

/** What a deal is worked out from, as the asker has it before them; the server reads nothing for it and keeps nothing of it. */
export const DealQuestion = z.strictObject({
  students: z
    .array(
      z.strictObject({
        id: EnrolmentId,
        name: Text,
        attributes: z.record(Attribute, Text),
        sitsIn: GroupId.nullable().optional(),
        fixedIn: GroupId.nullable(),
      }),
    )
    .max(20_000, '20,000 students are the most.'),
  groups: z
    .array(
      z.strictObject({
        id: GroupId,
        name: Text,
        capacity: z.number().int().min(0).nullable(),
        isLocked: z.boolean(),
      }),
    )
    .max(5_000, '5,000 groups are the most.'),
  rules: z
    .array(
      z.discriminatedUnion('kind', [
        ...ruleShapes(People, Attribute),
        z.strictObject({
          kind: z.literal('fresh'),
          sets: z.array(z.strictObject({ name: Text, groups: z.array(People).max(5_000) })).max(20),
        }),
      ]),
    )
    .max(60, '60 rules are the most.'),
  seed: z.number().int().min(0),
});

const PackedDeal = z.object({
  seats: z.array(z.number().int()).readonly(),
  reached: z
    .array(
      z.object({
        rule: z.number().int(),
        cost: z.number(),
        bound: z.number(),
        byChance: z.number(),
        usual: z.number(),
      }),
    )
    .readonly(),
  objective: z.number(),
  bound: z.number(),
});

/** One line of the answer (newline-delimited JSON): how far it is, and last the deal, why there is none, or that it was given up. */
export const DealLine = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('going'), part: z.number(), best: PackedDeal }),
  z.object({ kind: z.literal('dealt'), deal: PackedDeal }),
  z.object({ kind: z.literal('clash'), clash: z.custom<Clash>() }),
  z.object({ kind: z.literal('given-up'), detail: z.string() }),
]);
export type DealLine = z.infer<typeof DealLine>;

/** A set of expert tables beside this one: each takes people of different groups, so that every group has every topic. */
export const ExpertsDraft = z.strictObject({
  name: SetName,
  topics: z.array(GroupName).min(1, 'Name a topic.').max(40, '40 topics are the most.'),
  /** More people than this at a table make parallel ones; null: never. */
  most: Capacity,
  seed: z.number().int().min(0),
});
export type ExpertsDraft = z.output<typeof ExpertsDraft>;
