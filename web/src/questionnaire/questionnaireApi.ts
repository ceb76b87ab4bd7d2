import { AllAnswers, QuestionnaireView } from '@jigsaw/contract/questionnaire';
import type { GiveAnswers } from '@jigsaw/contract/questionnaire';
import { api } from '../api/index.js';

export const { useReadAnswersQuery, useGiveAnswersMutation, useReadAllAnswersQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    readAnswers: build.query<QuestionnaireView, string>({
      query: (copyId) => `copies/${copyId}/answers`,
      responseSchema: QuestionnaireView,
      providesTags: ['Copy'],
    }),
    readAllAnswers: build.query<AllAnswers, string>({
      query: (activityId) => `activities/${activityId}/answers`,
      responseSchema: AllAnswers,
      providesTags: ['Copy'],
    }),
    /** Refused, too, it has what was sent from another page read again. */
    giveAnswers: build.mutation<QuestionnaireView, { copyId: string; body: GiveAnswers }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/answers`, method: 'PUT', body }),
      responseSchema: QuestionnaireView,
      invalidatesTags: ['Copy', 'Room', 'Figures'],
    }),
  }),
});
