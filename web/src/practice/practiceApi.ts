import { PracticeView } from '@jigsaw/contract/practice';
import type { RestorePractice, StartPractice } from '@jigsaw/contract/practice';
import { api } from '../api/index.js';

/** The reader's own acts, also on a page on which the practice student acts. */
const extraOptions = { isReaders: true };
/** What was practised, and all that it could be seen in. */
const practised = ['Copy', 'Talk', 'Post', 'Room', 'Call', 'Figures'] as const;

export const { useStartPracticeMutation, useClearPracticeMutation, useRestorePracticeMutation } =
  api.injectEndpoints({
    endpoints: (build) => ({
      startPractice: build.mutation<PracticeView, StartPractice & { courseId: string }>({
        query: ({ courseId, groupId }) => ({
          url: `courses/${courseId}/practice`,
          method: 'POST',
          body: { groupId },
        }),
        extraOptions,
        responseSchema: PracticeView,
        invalidatesTags: [...practised],
      }),
      clearPractice: build.mutation<PracticeView, { courseId: string }>({
        query: ({ courseId }) => ({ url: `courses/${courseId}/practice/clear`, method: 'POST' }),
        extraOptions,
        responseSchema: PracticeView,
      }),
      restorePractice: build.mutation<PracticeView, RestorePractice & { courseId: string }>({
        query: ({ courseId, round }) => ({
          url: `courses/${courseId}/practice/restore`,
          method: 'POST',
          body: { round },
        }),
        extraOptions,
        responseSchema: PracticeView,
        invalidatesTags: [...practised],
      }),
    }),
  });
