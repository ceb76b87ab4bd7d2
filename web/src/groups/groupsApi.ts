import { BoardGroup, BoardGroups, GroupSetList, GroupSetView } from '@jigsaw/contract/sets';
import { BoardView, PlaceResult, SignUpList, SignUpView } from '@jigsaw/contract/placing';
import { MadeGroupSet } from '@jigsaw/contract/setUp';
import type { CopySet, CreateGroupSet, DeriveExperts } from '@jigsaw/contract/setUp';
import type { EditGroup, EditGroups, LeadGroups, SetRules, SetSettings } from '@jigsaw/contract/sets';
import type { PlaceRequest } from '@jigsaw/contract/placing';
import { ChangeAssistants } from '@jigsaw/contract/course';
import type { GroupSetId } from '@jigsaw/core/ids';
import { apply } from '@jigsaw/core/placing';
import type { Place } from '@jigsaw/core/placing';
import { api, isProblem, problemOf } from '../api/index.js';

/** A new set, and what its groups get with it. */
const madeTags = ['Set', 'Figures', 'Roster', 'Activity', 'Room', 'Copy', 'Desk'] as const;

const queriesApi = api.injectEndpoints({
  endpoints: (build) => ({
    listGroupSets: build.query<GroupSetList, string>({
      query: (courseId) => `courses/${courseId}/sets`,
      responseSchema: GroupSetList,
      providesTags: ['Set'],
    }),
    createGroupSet: build.mutation<MadeGroupSet, { courseId: string; body: CreateGroupSet }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/sets`, method: 'POST', body }),
      responseSchema: MadeGroupSet,
      invalidatesTags: madeTags,
    }),
    readBoard: build.query<BoardView, string>({
      query: (setId) => `sets/${setId}/board`,
      responseSchema: BoardView,
      providesTags: ['Placement'],
    }),
  }),
});

const groupsApi = queriesApi.injectEndpoints({
  endpoints: (build) => ({
    /** Shown at once; taken back if the server refuses. */
    placeStudents: build.mutation<
      PlaceResult,
      { setId: string; place: Place } & Partial<Pick<PlaceRequest, 'why' | 'credit'>>
    >({
      query: ({ setId, place, why = '', credit = 'stays' }) => ({
        url: `sets/${setId}/place`,
        method: 'POST',
        body: { ...place, ...(why !== '' && { why }), ...(credit !== 'stays' && { credit }) },
      }),
      responseSchema: PlaceResult,
      invalidatesTags: ['Set', 'Roster', 'Figures', 'Room'],
      onQueryStarted: async ({ setId, place }, { dispatch, queryFulfilled }) => {
        const shown = dispatch(
          queriesApi.util.updateQueryData('readBoard', setId, (board) => {
            const before = new Map(board.students.map((student) => [student.enrolmentId, student.seats]));
            const applied = apply(before, place, board.set.isExclusive);
            if (!applied.ok) return; // the server says how it is
            for (const student of board.students) {
              const seats = applied.placement.get(student.enrolmentId)!;
              if (seats !== before.get(student.enrolmentId))
                student.seats = seats.map((seat) => ({ handIns: 0, ...seat }));
            }
            board.set.unplaced = board.students.filter((student) => student.seats.length === 0).length;
          }),
        );
        try {
          await queryFulfilled;
        } catch (failure) {
          shown.undo();
          const error = (failure as { error?: unknown }).error;
          const current = BoardView.safeParse(problemOf(error).current);
          if (isProblem(error, 'stale-write') && current.success)
            dispatch(queriesApi.util.upsertQueryData('readBoard', setId, current.data));
        }
      },
    }),
    changeGroupSet: build.mutation<GroupSetView, { setId: string; body: SetSettings }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}`, method: 'PATCH', body }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Placement', 'Roster', 'Room'],
    }),
    changeRules: build.mutation<GroupSetView, { setId: string; body: SetRules }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/rules`, method: 'PUT', body }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Placement'],
    }),
    putAwayGroupSet: build.mutation<GroupSetView, { setId: string; isPutAway: boolean }>({
      query: ({ setId, isPutAway }) => ({
        url: `sets/${setId}/put-away`,
        method: 'POST',
        body: { isPutAway },
      }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Roster', 'Figures'],
    }),
    orderGroupSets: build.mutation<GroupSetList, { courseId: string; setIds: GroupSetId[] }>({
      query: ({ courseId, setIds }) => ({
        url: `courses/${courseId}/sets/order`,
        method: 'PUT',
        body: { setIds },
      }),
      responseSchema: GroupSetList,
      invalidatesTags: ['Set', 'Roster'],
    }),
    copyGroupSet: build.mutation<MadeGroupSet, { setId: string; body: CopySet }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/copies`, method: 'POST', body }),
      responseSchema: MadeGroupSet,
      invalidatesTags: madeTags,
    }),
    deriveExperts: build.mutation<MadeGroupSet, { setId: string; body: DeriveExperts }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/experts`, method: 'POST', body }),
      responseSchema: MadeGroupSet,
      invalidatesTags: madeTags,
    }),
    freezeGroupSet: build.mutation<GroupSetView, { setId: string; isFrozen: boolean }>({
      query: ({ setId, isFrozen }) => ({ url: `sets/${setId}/freeze`, method: 'POST', body: { isFrozen } }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Placement'],
    }),
    listSignUps: build.query<SignUpList, string>({
      query: (courseId) => `courses/${courseId}/sign-ups`,
      responseSchema: SignUpList,
      providesTags: ['SignUp'],
    }),
    readSignUp: build.query<SignUpView, string>({
      query: (setId) => `sets/${setId}/sign-up`,
      responseSchema: SignUpView,
      providesTags: ['SignUp'],
    }),
    /** What comes back is how it is now, also when the place was just taken by somebody else. */
    takePlace: build.mutation<SignUpView, { setId: string; groupId: string | null }>({
      query: ({ setId, groupId }) => ({ url: `sets/${setId}/sign-up`, method: 'POST', body: { groupId } }),
      responseSchema: SignUpView,
      invalidatesTags: ['SignUp', 'Room', 'Figures'],
    }),
    editGroups: build.mutation<BoardGroups, { setId: string; body: EditGroups }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/groups`, method: 'PUT', body }),
      responseSchema: BoardGroups,
      invalidatesTags: ['Set', 'Placement', 'Roster', 'Room', 'Desk', 'Activity'],
    }),
    leadGroups: build.mutation<BoardGroups, { setId: string; body: LeadGroups }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/leads`, method: 'PUT', body }),
      responseSchema: BoardGroups,
      invalidatesTags: ['Placement', 'Room', 'Desk'],
    }),
    /** Pages of assistants are read again: what they may see has changed. */
    changeAssistants: build.mutation<
      ChangeAssistants,
      { courseId: string; assistantsSee: ChangeAssistants['assistantsSee'] }
    >({
      query: ({ courseId, assistantsSee }) => ({
        url: `courses/${courseId}/assistants`,
        method: 'PUT',
        body: { assistantsSee },
      }),
      responseSchema: ChangeAssistants,
      invalidatesTags: ['Placement'],
    }),
    editGroup: build.mutation<BoardGroup, { groupId: string; body: EditGroup }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}`, method: 'PATCH', body }),
      responseSchema: BoardGroup,
      invalidatesTags: ['Placement', 'Roster', 'Room', 'Desk'],
    }),
  }),
});

export const {
  useListGroupSetsQuery,
  useCreateGroupSetMutation,
  useReadBoardQuery,
  useLazyReadBoardQuery,
  usePlaceStudentsMutation,
  useEditGroupMutation,
  useChangeGroupSetMutation,
  useChangeRulesMutation,
  useFreezeGroupSetMutation,
  useCopyGroupSetMutation,
  useDeriveExpertsMutation,
  usePutAwayGroupSetMutation,
  useOrderGroupSetsMutation,
  useListSignUpsQuery,
  useReadSignUpQuery,
  useTakePlaceMutation,
  useEditGroupsMutation,
  useLeadGroupsMutation,
  useChangeAssistantsMutation,
} = groupsApi;
