import { z } from 'zod';
import { CourseId, PersonId, Role } from './common.js';

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
});
export type SessionView = z.infer<typeof SessionView>;

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

/** A link that its holder opens once to choose a password. */
export const SignInLinks = z.object({
  links: z.array(z.object({ name: z.string(), email: z.string(), url: z.string() })),
  expiresAt: z.string(),
});
export type SignInLinks = z.infer<typeof SignInLinks>;

export const ChoosePassword = z.strictObject({
  token: z.string().min(20).max(100),
  password: z.string().min(10, 'Choose at least 10 characters.').max(500),
});
export type ChoosePassword = z.infer<typeof ChoosePassword>;
