import { z } from 'zod';
import { DateTime, EnrolmentId, MailId } from './common.js';

export const MailView = z.object({
  id: MailId,
  at: DateTime,
  toName: z.string(),
  toAddress: z.string(),
  subject: z.string(),
  paragraphs: z.array(z.string()),
  /** `url` null: it lets its reader in, and is theirs alone to see. */
  link: z.object({ label: z.string(), url: z.string().nullable() }),
  why: z.string(),
});
export type MailView = z.infer<typeof MailView>;
/** The newest first; at most 500. */
export const Outbox = z.object({ mails: z.array(MailView), total: z.number().int() });
export type Outbox = z.infer<typeof Outbox>;

/** null: everyone who has not signed in yet. */
export const InviteRequest = z.strictObject({
  enrolmentIds: z.array(EnrolmentId).min(1).max(5000).nullable(),
});
export type InviteRequest = z.infer<typeof InviteRequest>;
/** Those who have come in need no invitation. */
export const Invited = z.object({ invited: z.number().int(), hadComeIn: z.number().int() });
export type Invited = z.infer<typeof Invited>;
