import { CheckCount, Figures, MessageCount } from '@jigsaw/contract/track';
import { api } from '../api/index.js';

/** What makes old what is known of what there is to check. */
export const checkedBy = ['Check', 'Activity', 'Placement', 'Roster', 'Set', 'Audience', 'Course'] as const;

export const figuresApi = api.injectEndpoints({
  endpoints: (build) => ({
    readFigures: build.query<Figures, string>({
      query: (courseId) => `courses/${courseId}/figures`,
      responseSchema: Figures,
      providesTags: ['Figures'],
    }),
    countMessages: build.query<MessageCount, string>({
      query: (courseId) => `courses/${courseId}/messages/count`,
      responseSchema: MessageCount,
      providesTags: ['MessageList'],
    }),
    countChecks: build.query<CheckCount, string>({
      query: (courseId) => `courses/${courseId}/checks/count`,
      responseSchema: CheckCount,
      providesTags: [...checkedBy],
    }),
  }),
});

export const { useReadFiguresQuery, useCountChecksQuery, useCountMessagesQuery } = figuresApi;
