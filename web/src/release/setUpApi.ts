import type { CreateGroupSet, DeriveExperts } from '@jigsaw/contract/setUp';
import { MadeGroupSet } from '@jigsaw/contract/setUp';
import { api } from '../api/index.js';
import { madeTags } from '../sets/index.js';

export const { useCreateGroupSetMutation, useDeriveExpertsMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    createGroupSet: build.mutation<MadeGroupSet, { courseId: string; body: CreateGroupSet }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/sets`, method: 'POST', body }),
      responseSchema: MadeGroupSet,
      invalidatesTags: madeTags,
    }),
    deriveExperts: build.mutation<MadeGroupSet, { setId: string; body: DeriveExperts }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/experts`, method: 'POST', body }),
      responseSchema: MadeGroupSet,
      invalidatesTags: madeTags,
    }),
  }),
});
