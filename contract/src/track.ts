import { z } from 'zod';
import { CopyId, CourseId, DateTime, ToPlace } from './common.js';

/** The figures of the track, true at the moment of asking and only what the asker may know. */
export const StaffFigures = z.object({
  kind: z.literal('staff'),
  enrolled: z.number().int(),
  ...ToPlace.shape,
  live: z.number().int(),
  scheduled: z.number().int(),
  closed: z.number().int(),
  drafts: z.number().int(),
  rooms: z.number().int(),
  unread: z.number().int(),
  toMark: z.number().int(),
});
export const StudentFigures = z.object({
  kind: z.literal('student'),
  due: z.number().int(),
  rooms: z.number().int(),
  unread: z.number().int(),
  newMarks: z.number().int(),
});
/** How many threads of messages have something new. */
export const MessageCount = z.object({ unread: z.number().int() });
export type MessageCount = z.infer<typeof MessageCount>;
/** How many things there are to check in a course; for those who release. */
export const CheckCount = z.object({ toCheck: z.number().int() });
export type CheckCount = z.infer<typeof CheckCount>;
export const Figures = z.discriminatedUnion('kind', [StaffFigures, StudentFigures]);
export type Figures = z.infer<typeof Figures>;

/** Where someone begins: what needs them in each of their courses, and what they owe in all of them. */
export const Home = z.object({
  /** Those that were made last, in the order of the list of courses. */
  courses: z.array(
    z.object({
      courseId: CourseId,
      figures: Figures,
      /** Threads of messages with something new. */
      messages: z.number().int(),
    }),
  ),
  /** What is owed as a student, the first due first, what has no date last. */
  due: z.array(
    z.object({
      courseId: CourseId,
      copyId: CopyId,
      title: z.string(),
      due: DateTime.nullable(),
      isExtended: z.boolean(),
      /** null: one copy for all. */
      groupName: z.string().nullable(),
    }),
  ),
});
export type Home = z.infer<typeof Home>;
