import { Done } from '@jigsaw/contract/common';
import {
  MessageList,
  RecipientChoice,
  Replied,
  SendingView,
  Sent,
  ThreadView,
} from '@jigsaw/contract/messages';
import type { MarkSeenMessages, Reply, SendMessage } from '@jigsaw/contract/messages';
import { api } from '../api/index.js';

interface OfThread {
  readonly threadId: string;
}
interface Page {
  readonly courseId: string;
  /** How many of the threads. */
  readonly most: number;
}
const everything = ['Message', 'MessageList', 'Outbox'] as const;
/** What was refused was asked of something that is not so any more. */
const orRefused = (
  _answer: unknown,
  error: unknown,
): readonly ('Message' | 'MessageList' | 'Audience' | 'Outbox')[] =>
  error ? ['Message', 'MessageList', 'Audience'] : everything;

export const {
  useListMessagesQuery,
  useListRecipientsQuery,
  useReadThreadQuery,
  useReadSendingQuery,
  useSendMessageMutation,
  useReplyToThreadMutation,
  useMarkSeenMessagesMutation,
  useRemoveMessageMutation,
  useRestoreMessageMutation,
  useRemoveSendingMutation,
  useRestoreSendingMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    listMessages: build.query<MessageList, Page>({
      query: ({ courseId, most }) => `courses/${courseId}/messages?most=${most}`,
      responseSchema: MessageList,
      providesTags: ['MessageList'],
    }),
    listRecipients: build.query<RecipientChoice, string>({
      query: (courseId) => `courses/${courseId}/messages/recipients`,
      responseSchema: RecipientChoice,
      providesTags: ['Roster', 'Placement', 'Set', 'Audience'],
    }),
    readThread: build.query<ThreadView, string>({
      query: (threadId) => `threads/${threadId}`,
      responseSchema: ThreadView,
      providesTags: ['Message'],
    }),
    readSending: build.query<SendingView, string>({
      query: (sendingId) => `sendings/${sendingId}`,
      responseSchema: SendingView,
      providesTags: ['Message'],
    }),
    sendMessage: build.mutation<Sent, { readonly courseId: string; readonly body: SendMessage }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/messages`, method: 'POST', body }),
      responseSchema: Sent,
      invalidatesTags: orRefused,
    }),
    replyToThread: build.mutation<Replied, OfThread & { readonly body: Reply }>({
      query: ({ threadId, body }) => ({ url: `threads/${threadId}/messages`, method: 'POST', body }),
      responseSchema: Replied,
      invalidatesTags: orRefused,
    }),
    /** What is shown as new stays so for this visit. */
    markSeenMessages: build.mutation<Done, OfThread & { readonly body: MarkSeenMessages }>({
      query: ({ threadId, body }) => ({ url: `threads/${threadId}/seen`, method: 'POST', body }),
      responseSchema: Done,
      invalidatesTags: ['MessageList'],
    }),
    removeMessage: build.mutation<ThreadView, string>({
      query: (messageId) => ({ url: `messages/${messageId}`, method: 'DELETE' }),
      responseSchema: ThreadView,
      invalidatesTags: orRefused,
    }),
    restoreMessage: build.mutation<ThreadView, string>({
      query: (messageId) => ({ url: `messages/${messageId}/restore`, method: 'POST' }),
      responseSchema: ThreadView,
      invalidatesTags: orRefused,
    }),
    removeSending: build.mutation<Done, string>({
      query: (sendingId) => ({ url: `sendings/${sendingId}`, method: 'DELETE' }),
      responseSchema: Done,
      invalidatesTags: orRefused,
    }),
    restoreSending: build.mutation<Done, string>({
      query: (sendingId) => ({ url: `sendings/${sendingId}/restore`, method: 'POST' }),
      responseSchema: Done,
      invalidatesTags: orRefused,
    }),
  }),
});
