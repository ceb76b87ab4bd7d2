import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { AudienceId, EnrolmentId, GroupId, GroupSetId, Role } from './common.js';

const Term = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('class') }),
  z.strictObject({ kind: z.literal('set'), setId: GroupSetId }),
  z.strictObject({ kind: z.literal('group'), setId: GroupSetId, groupId: GroupId }),
  z.strictObject({ kind: z.literal('role'), role: Role }),
  z.strictObject({ kind: z.literal('person'), enrolmentId: EnrolmentId }),
  z.strictObject({
    kind: z.literal('attribute'),
    name: z.string().overwrite(oneLine).min(1, 'Choose an attribute.').max(80),
    test: z.enum(['is', 'has']),
    value: z.string().overwrite(oneLine).min(1, 'Write a value.').max(200),
  }),
  z.strictObject({ kind: z.literal('audience'), audienceId: AudienceId }),
]);
const someTerms = z.array(Term).max(200, '200 lines are the most.').readonly();

/** Who is in a saved audience: everyone that `include` names, without those that `exclude` names. */
export const AudienceTerms = z.strictObject({ include: someTerms, exclude: someTerms });
export type AudienceTerms = z.infer<typeof AudienceTerms>;

const AudienceName = z.string().overwrite(oneLine).min(1, 'Give the audience a name.').max(120);
export const AudienceDraft = AudienceTerms.extend({ name: AudienceName });
export type AudienceDraft = z.infer<typeof AudienceDraft>;
export const EditAudience = AudienceDraft.extend({ version: z.number().int() });
export type EditAudience = z.infer<typeof EditAudience>;

export const AudienceView = AudienceTerms.extend({
  id: AudienceId,
  name: z.string(),
  version: z.number().int(),
  people: z.number().int(),
  groups: z.number().int(),
  /** Titles of what is released to it, and names of audiences that name it. */
  usedIn: z.array(z.string()),
});
export type AudienceView = z.infer<typeof AudienceView>;
export const AudienceList = z.object({ audiences: z.array(AudienceView) });
export type AudienceList = z.infer<typeof AudienceList>;

/** @param audienceId of the audience that would have these terms; null: a new one. */
export const WhoIsIn = AudienceTerms.extend({ audienceId: AudienceId.nullable() });
export type WhoIsIn = z.infer<typeof WhoIsIn>;

const Person = z.object({
  enrolmentId: EnrolmentId,
  name: z.string(),
  reading: z.string().nullable(),
  role: Role,
  /** The line that puts them in, or removes them. */
  by: Term,
});
/** Who is in an audience now and why, in the order of their names. */
export const AudienceMembers = z.object({
  people: z.array(Person),
  removed: z.array(Person),
  groups: z.array(z.object({ groupId: GroupId, number: z.number().int(), name: z.string() })),
  /** The way back to the audience itself, by name; null: there is no circle. */
  circle: z.array(z.string()).nullable(),
});
export type AudienceMembers = z.infer<typeof AudienceMembers>;
