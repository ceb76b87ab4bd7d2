import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { CourseId, EnrolmentId, Role } from './common.js';

const timeZones = new Set(Intl.supportedValuesOf('timeZone'));
export const TimeZone = z
  .string()
  .refine((zone) => zone === 'UTC' || timeZones.has(zone), 'Choose a time zone from the list.');

export const CreateCourse = z.strictObject({
  code: z.string().overwrite(oneLine).min(1, 'Give the course a short code, like FER 220.').max(40),
  title: z.string().overwrite(oneLine).min(1, 'Give the course a title.').max(200),
  term: z.string().overwrite(oneLine).max(80),
  timeZone: TimeZone,
});
export type CreateCourse = z.infer<typeof CreateCourse>;

export const CourseView = z.object({
  id: CourseId,
  code: z.string(),
  title: z.string(),
  term: z.string(),
  timeZone: z.string(),
  role: Role,
  enrolmentId: EnrolmentId,
});
export type CourseView = z.infer<typeof CourseView>;
/** Whose work assistants see: everyone's, or that of the groups they lead. */
export const AssistantsSee = z.enum(['all', 'theirs']);
export const ChangeAssistants = z.strictObject({ assistantsSee: AssistantsSee });
export type ChangeAssistants = z.infer<typeof ChangeAssistants>;
export const CourseList = z.object({ courses: z.array(CourseView) });
export type CourseList = z.infer<typeof CourseList>;

export const AttributeKind = z.enum(['category', 'number', 'half-days', 'text']);
export type AttributeKind = z.infer<typeof AttributeKind>;
export const RosterAttribute = z.object({
  name: z.string(),
  kind: AttributeKind,
  /** Someone said so; else it is guessed from the values. */
  isChosen: z.boolean(),
});

export const Member = z.object({
  enrolmentId: EnrolmentId,
  name: z.string(),
  reading: z.string().nullable(),
  isYou: z.boolean(),
});
export type Member = z.infer<typeof Member>;

/** The author of something: a member, someone who was one, or staff. */
export const Author = Member.extend({ isStaff: z.boolean() });
export type Author = z.infer<typeof Author>;
