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
/** What a course is called and in which time zone its dates are shown.
 * @param version as it was read. */
export const ChangeCourse = CreateCourse.extend({ version: z.number().int() });
export type ChangeCourse = z.infer<typeof ChangeCourse>;
/** Whose work assistants see: everyone's, or that of the groups they lead. */
export const AssistantsSee = z.enum(['all', 'theirs']);
export const ChangeAssistants = z.strictObject({ assistantsSee: AssistantsSee });
export type ChangeAssistants = z.infer<typeof ChangeAssistants>;
/** What holds in the whole course, and for which of the staff. */
export const CourseSettings = ChangeCourse.extend({
  assistantsSee: AssistantsSee,
  /** Groups of the sets that are not archived. */
  groups: z.number().int(),
  /** Instructors and assistants, with how many of these groups each leads. */
  staff: z.array(
    z.object({
      enrolmentId: EnrolmentId,
      name: z.string(),
      role: z.enum(['instructor', 'assistant']),
      leads: z.number().int(),
    }),
  ),
});
export type CourseSettings = z.infer<typeof CourseSettings>;
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
