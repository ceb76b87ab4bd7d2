import { Controller, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { z } from 'zod';
import { CourseId, Done, MessageId, SendingId, ThreadId } from '@jigsaw/contract/common';
import {
  MarkSeenMessages,
  MessageList,
  RecipientChoice,
  Replied,
  Reply,
  SendingView,
  SendMessage,
  Sent,
  ThreadView,
} from '@jigsaw/contract/messages';
import { MessageCount } from '@jigsaw/contract/track';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import { MessagesService } from './messages.service.js';
import { SendingService } from './sending.service.js';

const Most = z.coerce.number().int().min(1).max(5000).default(100);

@ApiTags('messages')
@Controller()
export class MessagesController {
  constructor(
    private readonly messages: MessagesService,
    private readonly sending: SendingService,
  ) {}

  @Endpoint('GET courses/:courseId/messages', {
    id: 'listMessages',
    does: "One's threads in a course, and to staff what went to many; the latest 100, or as many as the query asks for",
    answer: MessageList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Query('most') most: unknown,
  ): Promise<MessageList> {
    const asked = Most.safeParse(most);
    if (!asked.success) throw problems.invalidInput('Ask for 1 to 5,000 threads.');
    return this.messages.list(person, courseId, asked.data);
  }

  @Endpoint('GET courses/:courseId/messages/count', {
    id: 'countMessages',
    does: 'How many threads have something new',
    answer: MessageCount,
  })
  count(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<MessageCount> {
    return this.messages.count(person, courseId);
  }

  @Endpoint('GET courses/:courseId/messages/recipients', {
    id: 'listRecipients',
    does: 'Who one may write to, and how many each reaches',
    answer: RecipientChoice,
  })
  recipients(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RecipientChoice> {
    return this.sending.choice(person, courseId);
  }

  @Endpoint('POST courses/:courseId/messages', {
    id: 'sendMessage',
    does: 'Write to people, groups, a set, an audience, everyone, or as a student to staff: each in a thread of their own',
    body: SendMessage,
    largestKb: 700,
    answer: Sent,
  })
  send(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(SendMessage) message: SendMessage,
  ): Promise<Sent> {
    return this.sending.send(person, courseId, message);
  }

  @Endpoint('GET sendings/:sendingId', {
    id: 'readSending',
    does: 'A message that went to many, and who replied',
    answer: SendingView,
  })
  readSending(
    @CurrentPerson() person: SignedIn,
    @IdParam('sendingId', SendingId) sendingId: ids.SendingId,
  ): Promise<SendingView> {
    return this.sending.read(person, sendingId);
  }

  @Endpoint('DELETE sendings/:sendingId', {
    id: 'removeSending',
    does: 'Remove a message that went to many from all their threads; it can be restored',
    answer: Done,
  })
  removeSending(
    @CurrentPerson() person: SignedIn,
    @IdParam('sendingId', SendingId) sendingId: ids.SendingId,
  ): Promise<Done> {
    return this.sending.remove(person, sendingId, true);
  }

  @Endpoint('POST sendings/:sendingId/restore', {
    id: 'restoreSending',
    does: 'A message that went to many is in all their threads again',
    answer: Done,
  })
  restoreSending(
    @CurrentPerson() person: SignedIn,
    @IdParam('sendingId', SendingId) sendingId: ids.SendingId,
  ): Promise<Done> {
    return this.sending.remove(person, sendingId, false);
  }

  @Endpoint('GET threads/:threadId', {
    id: 'readThread',
    does: 'What was written in a thread',
    answer: ThreadView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('threadId', ThreadId) threadId: ids.ThreadId,
  ): Promise<ThreadView> {
    return this.messages.read(person, threadId);
  }

  @Endpoint('POST threads/:threadId/messages', {
    id: 'replyToThread',
    does: 'Write in a thread',
    body: Reply,
    answer: Replied,
  })
  reply(
    @CurrentPerson() person: SignedIn,
    @IdParam('threadId', ThreadId) threadId: ids.ThreadId,
    @Takes(Reply) reply: Reply,
  ): Promise<Replied> {
    return this.messages.reply(person, threadId, reply);
  }

  @Endpoint('POST threads/:threadId/seen', {
    id: 'markSeenMessages',
    does: 'What was written in a thread was seen, up to a message',
    body: MarkSeenMessages,
    answer: Done,
  })
  markSeen(
    @CurrentPerson() person: SignedIn,
    @IdParam('threadId', ThreadId) threadId: ids.ThreadId,
    @Takes(MarkSeenMessages) request: MarkSeenMessages,
  ): Promise<Done> {
    return this.messages.markSeen(person, threadId, request);
  }

  @Endpoint('DELETE messages/:messageId', {
    id: 'removeMessage',
    does: 'Remove a message; it can be restored',
    answer: ThreadView,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('messageId', MessageId) messageId: ids.MessageId,
  ): Promise<ThreadView> {
    return this.messages.remove(person, messageId, true);
  }

  @Endpoint('POST messages/:messageId/restore', {
    id: 'restoreMessage',
    does: 'A message that was removed is in its thread again',
    answer: ThreadView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('messageId', MessageId) messageId: ids.MessageId,
  ): Promise<ThreadView> {
    return this.messages.remove(person, messageId, false);
  }
}
