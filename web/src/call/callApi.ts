import { CallView, StillIn } from '@jigsaw/contract/call';
import type { SetDoor, StepIn } from '@jigsaw/contract/call';
import { api } from '../api/index.js';

interface OfVisit {
  readonly copyId: string;
  readonly visitId: string;
}

export const {
  useReadCallQuery,
  useStepInMutation,
  useStayInMutation,
  useLeaveCallMutation,
  useSetDoorMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    readCall: build.query<CallView, string>({
      query: (copyId) => `copies/${copyId}/call`,
      responseSchema: CallView,
      providesTags: ['Call'],
    }),
    stepIn: build.mutation<StillIn, { copyId: string; body: StepIn }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/call/visits`, method: 'POST', body }),
      responseSchema: StillIn,
      invalidatesTags: ['Call'],
    }),
    /** Said by the page, not by a person; nothing that is shown changes by it. */
    stayIn: build.mutation<StillIn, OfVisit>({
      query: ({ copyId, visitId }) => ({
        url: `copies/${copyId}/call/visits/${visitId}`,
        method: 'PUT',
        body: {},
      }),
      responseSchema: StillIn,
    }),
    leaveCall: build.mutation<StillIn, OfVisit>({
      query: ({ copyId, visitId }) => ({ url: `copies/${copyId}/call/visits/${visitId}`, method: 'DELETE' }),
      responseSchema: StillIn,
      invalidatesTags: ['Call'],
    }),
    setDoor: build.mutation<CallView, { copyId: string; body: SetDoor }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/call/door`, method: 'PUT', body }),
      responseSchema: CallView,
      invalidatesTags: ['Call'],
    }),
  }),
});
