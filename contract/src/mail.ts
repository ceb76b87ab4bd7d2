import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
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

/** From the person who asks to these people, each alone. */
export const MessageRequest = z.strictObject({
  enrolmentIds: z.array(EnrolmentId).min(1).max(5000),
  subject: z.string().overwrite(oneLine).min(1, 'Give the message a subject.').max(200),
  text: z.string().trim().min(1, 'Write a message.').max(10_000, '10,000 characters are the most.'),
});
export type MessageRequest = z.infer<typeof MessageRequest>;
export const Written = z.object({ written: z.number().int() });
export type Written = z.infer<typeof Written>;

/** null: everyone who has not signed in yet. */
export const InviteRequest = z.strictObject({
  enrolmentIds: z.array(EnrolmentId).min(1).max(5000).nullable(),
});
export type InviteRequest = z.infer<typeof InviteRequest>;
/** Those who have come in need no invitation. */
export const Invited = z.object({ invited: z.number().int(), hadComeIn: z.number().int() });
export type Invited = z.infer<typeof Invited>;
