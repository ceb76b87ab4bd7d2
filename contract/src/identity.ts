import { z } from 'zod';
import { CourseId, DateTime, EnrolmentId, GroupId, PersonId, Role, SessionId } from './common.js';

export const SignIn = z.strictObject({
  email: z.string().trim().min(1, 'Write your address.').max(254),
  password: z.string().min(1, 'Write your password.').max(500),
});
export type SignIn = z.infer<typeof SignIn>;

export const DemoSignIn = z.strictObject({ personId: PersonId });
export type DemoSignIn = z.infer<typeof DemoSignIn>;

/** Who is signed in. */
export const SessionView = z.object({
  person: z.object({ id: PersonId, name: z.string(), reading: z.string().nullable(), email: z.string() }),
  mayCreateCourses: z.boolean(),
  /** Came in by a mailed link: sees every course that knows the address. Else only those whose own link was opened. */
  isProven: z.boolean(),
  /** A member of staff looks as this student, in this course alone; null: it is the person themselves. */
  sitsIn: z
    .object({
      courseId: CourseId,
      enrolmentId: EnrolmentId,
      /** The group in which the practice student acts; null: it is a student who is looked over the shoulder. */
      practisesIn: z.object({ groupId: GroupId, name: z.string() }).nullable(),
    })
    .nullable(),
});
export type SessionView = z.infer<typeof SessionView>;

/** Where an account is signed in: here first, then the last used. */
export const OpenSessions = z.object({
  sessions: z.array(
    z.object({
      id: SessionId,
      /** Browser and system: "Firefox on Linux". */
      cameFrom: z.string(),
      since: DateTime,
      seenAt: DateTime,
      isThis: z.boolean(),
    }),
  ),
});
export type OpenSessions = z.infer<typeof OpenSessions>;

/** What the sign-in page offers without anybody signed in; `demoPeople` is empty outside demo mode. */
export const FrontDoor = z.object({
  demoPeople: z.array(
    z.object({
      personId: PersonId,
      name: z.string(),
      reading: z.string().nullable(),
      role: Role,
      courseId: CourseId,
      note: z.string(),
      groupNumber: z.number().int().nullable(),
    }),
  ),
});
export type FrontDoor = z.infer<typeof FrontDoor>;

/** How long a link lets someone in. */
export const linkDays = 14;

/** Links that a course hands out; each lets its holder in to it, once. */
export const SignInLinks = z.object({
  links: z.array(z.object({ name: z.string(), email: z.string(), url: z.string() })),
  expiresAt: z.string(),
});
export type SignInLinks = z.infer<typeof SignInLinks>;

const LinkToken = z.string().min(20).max(100);
export const LookAtLink = z.strictObject({ token: LinkToken });
export type LookAtLink = z.infer<typeof LookAtLink>;
/** Who a link is for, and what it asks them for: a first or a new password, or the one that they have. */
export const LinkView = z.object({ email: z.string(), asksFor: z.enum(['new-password', 'password']) });
export type LinkView = z.infer<typeof LinkView>;

export const OpenLink = z.strictObject({
  token: LinkToken,
  password: z.string().min(10, 'A password has at least 10 characters.').max(500),
});
export type OpenLink = z.infer<typeof OpenLink>;

/** A link by mail to this address, if anybody here has it. */
export const MailLink = z.strictObject({ email: z.string().trim().min(1, 'Write your address.').max(254) });
export type MailLink = z.infer<typeof MailLink>;
