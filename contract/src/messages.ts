import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import {
  AudienceId,
  CourseId,
  DateTime,
  EnrolmentId,
  GroupId,
  GroupSetId,
  MessageId,
  SendingId,
  ThreadId,
} from './common.js';
import { Author } from './course.js';
import { GroupTag } from './sets.js';

/** So many can be written to at once. */
export const mostRecipients = 10_000;
const mostCharacters = 10_000;

const Subject = z
  .string()
  .overwrite(oneLine)
  .min(1, 'Give the message a subject.')
  .max(200, '200 characters are the most for a subject.');
const MessageText = z
  .string()
  .regex(/\S/, 'Write a message.')
  .max(mostCharacters, '10,000 characters are the most. Shorten it, or put it in a file.');

const tooMany = `${mostRecipients.toLocaleString('en')} recipients are the most. Write to a set or to an audience.`;

/** Who a message goes to: each person gets a thread of their own, and each group one for its members. */
export const Recipients = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('people'),
    enrolmentIds: z.array(EnrolmentId).min(1).max(mostRecipients, tooMany),
  }),
  z.strictObject({
    kind: z.literal('groups'),
    groupIds: z.array(GroupId).min(1).max(mostRecipients, tooMany),
  }),
  /** Each of its groups. */
  z.strictObject({ kind: z.literal('set'), setId: GroupSetId }),
  /** Everyone in it, each alone. */
  z.strictObject({ kind: z.literal('audience'), audienceId: AudienceId }),
  /** Every student, each alone. */
  z.strictObject({ kind: z.literal('class') }),
  /** From a student to those who teach them. */
  z.strictObject({ kind: z.literal('staff') }),
]);
export type Recipients = z.infer<typeof Recipients>;

/** The page names a message before it is sent, so that sending it twice writes it once.
 * count: how many people, or groups, were shown to get it; another number by now is refused. */
export const SendMessage = z.strictObject({
  id: SendingId,
  to: Recipients,
  subject: Subject,
  text: MessageText,
  count: z.number().int().min(1),
});
export type SendMessage = z.infer<typeof SendMessage>;
/** threadId: where one got it; null: it went to several. */
export const Sent = z.object({
  id: SendingId,
  threadId: ThreadId.nullable(),
  count: z.number().int(),
});
export type Sent = z.infer<typeof Sent>;

export const Reply = z.strictObject({ id: MessageId, text: MessageText });
export type Reply = z.infer<typeof Reply>;

const With = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('person'), person: Author }),
  z.object({ kind: z.literal('group'), group: GroupTag }),
]);
export type With = z.infer<typeof With>;

/** A thread as a list shows it, by what was written in it last. */
export const ThreadLine = z.object({
  id: ThreadId,
  with: With,
  subject: z.string(),
  last: z.object({ by: Author, at: DateTime, excerpt: z.string() }),
  /** Of others, since the reader last looked. */
  unread: z.number().int(),
  /** A student wrote last; told to staff. */
  awaitsReply: z.boolean(),
});
export type ThreadLine = z.infer<typeof ThreadLine>;

/** One message that went to many at once. */
export const SendingLine = z.object({
  id: SendingId,
  subject: z.string(),
  at: DateTime,
  by: Author,
  kind: z.enum(['people', 'groups']),
  count: z.number().int(),
  replied: z.number().int(),
});
export type SendingLine = z.infer<typeof SendingLine>;

/** What was written in last first. */
export const MessageList = z.object({
  threads: z.array(ThreadLine),
  /** There are earlier threads. */
  hasMore: z.boolean(),
  /** To staff; threads of it stand in `threads` once someone replied. */
  sendings: z.array(SendingLine),
});
export type MessageList = z.infer<typeof MessageList>;

export const MessageView = z.object({
  id: MessageId,
  number: z.number().int(),
  by: Author,
  at: DateTime,
  text: z.string(),
  isNew: z.boolean(),
  mayRemove: z.boolean(),
});
export type MessageView = z.infer<typeof MessageView>;
/** Where it stands among the others, the thread says. */
export const Replied = MessageView.omit({ number: true });
export type Replied = z.infer<typeof Replied>;
export const ThreadView = z.object({
  id: ThreadId,
  courseId: CourseId,
  with: With,
  subject: z.string(),
  /** Its first message went to others too. */
  sendingId: SendingId.nullable(),
  /** The first first. */
  messages: z.array(MessageView),
  /** Who reads it of a group; of a thread with one person, no one is named. */
  members: z.array(z.string()),
});
export type ThreadView = z.infer<typeof ThreadView>;

export const SendingView = SendingLine.extend({
  text: z.string(),
  threads: z.array(z.object({ id: ThreadId, with: With, hasReplied: z.boolean() })),
});
export type SendingView = z.infer<typeof SendingView>;

/** number: the last message that was shown. */
export const MarkSeenMessages = z.strictObject({ upTo: z.number().int().min(1).max(1_000_000) });
export type MarkSeenMessages = z.infer<typeof MarkSeenMessages>;

/** Who someone may write to, and how many each reaches now. */
export const RecipientChoice = z.object({
  /** Students; null: not theirs to write to. */
  everyone: z.number().int().nullable(),
  /** To a student: those who teach them. */
  hasStaff: z.boolean(),
  sets: z.array(
    z.object({
      id: GroupSetId,
      name: z.string(),
      /** Those with someone in them. */
      groups: z.array(GroupTag),
    }),
  ),
  audiences: z.array(z.object({ id: AudienceId, name: z.string(), people: z.number().int() })),
});
export type RecipientChoice = z.infer<typeof RecipientChoice>;
