import { CheckList } from '@jigsaw/contract/checks';
import type { DismissCheck } from '@jigsaw/contract/checks';
import { api } from '../api/index.js';
import { checkedBy } from '../course/index.js';

const checks = api.injectEndpoints({
  endpoints: (build) => ({
    listChecks: build.query<CheckList, string>({
      query: (courseId) => `courses/${courseId}/checks`,
      responseSchema: CheckList,
      providesTags: [...checkedBy],
    }),
    dismissCheck: build.mutation<CheckList, DismissCheck & { courseId: string }>({
      query: ({ courseId, ...body }) => ({
        url: `courses/${courseId}/checks/dismissals`,
        method: 'POST',
        body,
      }),
      responseSchema: CheckList,
      invalidatesTags: ['Check'],
    }),
    takeUpCheck: build.mutation<CheckList, { courseId: string; id: string }>({
      query: ({ courseId, id }) => ({ url: `courses/${courseId}/checks/dismissals/${id}`, method: 'DELETE' }),
      responseSchema: CheckList,
      invalidatesTags: ['Check'],
    }),
  }),
});
export const { useListChecksQuery, useDismissCheckMutation, useTakeUpCheckMutation } = checks;
