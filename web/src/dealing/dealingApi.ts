import type { SetRules } from '@jigsaw/contract/sets';
import { GroupSetView } from '@jigsaw/contract/sets';
import { api } from '../api/index.js';

export const { useChangeRulesMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    changeRules: build.mutation<GroupSetView, { setId: string; body: SetRules }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/rules`, method: 'PUT', body }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Placement'],
    }),
  }),
});
