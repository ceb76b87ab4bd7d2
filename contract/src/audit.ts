import { z } from 'zod';
import { kindsOfActs } from '@jigsaw/core/audit';
import { ActivityId, DateTime, EnrolmentId, GroupId } from './common.js';
import { Author } from './course.js';
import { GroupTag } from './sets.js';

const AuditLine = z.object({
  id: z.uuid(),
  at: DateTime,
  /** null: it happened at its time, by itself; or the product does not say who it was. */
  by: Author.nullable(),
  kind: z.enum(kindsOfActs),
  /** As it follows the name of who did it: “released it to 12 groups”. */
  says: z.string(),
  /** So many times in a row, within an hour; the last of them is told. */
  times: z.number().int(),
  activity: z.object({ id: ActivityId, title: z.string() }).nullable(),
  group: GroupTag.nullable(),
  /** Students that it was done to. */
  people: z.array(z.string()),
  /** Where it is seen, and undone where it can be; below the course. */
  way: z.object({ path: z.string(), label: z.string() }).nullable(),
});
export type AuditLine = z.infer<typeof AuditLine>;

/** The latest first. */
export const AuditTrail = z.object({
  lines: z.array(AuditLine),
  /** Where earlier ones begin; null: there are none. */
  before: z.uuid().nullable(),
});
export type AuditTrail = z.infer<typeof AuditTrail>;

/** Which acts are asked for: those that fit all of it. */
export const AuditFilter = z.strictObject({
  kind: z.enum(kindsOfActs).optional(),
  /** Who did it, or who it was done to. */
  person: EnrolmentId.optional(),
  group: GroupId.optional(),
  activity: ActivityId.optional(),
  before: z.uuid().optional(),
});
export type AuditFilter = z.infer<typeof AuditFilter>;

/** What a trail can be narrowed to. */
export const AuditChoice = z.object({
  people: z.array(z.object({ id: EnrolmentId, name: z.string() })),
  groups: z.array(GroupTag),
  activities: z.array(z.object({ id: ActivityId, title: z.string() })),
});
export type AuditChoice = z.infer<typeof AuditChoice>;
