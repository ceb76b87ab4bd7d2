import { TableView } from '@jigsaw/contract/import';
import type { TableRequest } from '@jigsaw/contract/import';
import type { PlaceRequest } from '@jigsaw/contract/placing';
import { BoardView, MovesOf, PlaceResult, SignUpList, SignUpView } from '@jigsaw/contract/placing';
import type { EditGroup, EditGroups, EditTopics, LeadGroups } from '@jigsaw/contract/sets';
import { BoardGroup, BoardGroups } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import type { Place } from '@jigsaw/core/placing';
import { apply } from '@jigsaw/core/placing';
import { api, isProblem, problemOf } from '../api/index.js';
import { figuresApi } from '../course/index.js';
import { setsApi } from '../sets/index.js';

const boardApi = api.injectEndpoints({
  endpoints: (build) => ({
    readBoard: build.query<BoardView, string>({
      query: (setId) => `sets/${setId}/board`,
      responseSchema: BoardView,
      providesTags: ['Placement'],
    }),
  }),
});

/** What the answer to an act on the Board changes beside it: counts in the tabs of the sets and in the track, and what those who moved have in
 * the work of their groups. */
function countsAfter(setId: string, { unplaced, toPlace, credited }: PlaceResult, state: never) {
  const handIns = new Map(credited.map((each) => [`${each.enrolmentId} ${each.groupId}`, each.handIns]));
  return [
    boardApi.util.updateQueryData('readBoard', setId, (board) => {
      for (const { enrolmentId, seats } of board.students)
        for (const seat of seats)
          seat.handIns = handIns.get(`${enrolmentId} ${seat.groupId}`) ?? seat.handIns;
    }),
    ...setsApi.util.selectCachedArgsForQuery(state, 'listGroupSets').map((courseId) =>
      setsApi.util.updateQueryData('listGroupSets', courseId, ({ sets }) => {
        const set = sets.find((each) => each.id === setId);
        if (set) set.unplaced = unplaced;
      }),
    ),
    ...figuresApi.util.selectCachedArgsForQuery(state, 'readFigures').map((courseId) =>
      figuresApi.util.updateQueryData('readFigures', courseId, (figures) => {
        if (figures.kind === 'staff') Object.assign(figures, toPlace);
      }),
    ),
  ];
}

/** Puts an act on the Board that is shown, before the server has answered; once it is there, or where it does not fit, nothing changes. */
export const showPlaced = (setId: string, place: Place) =>
  boardApi.util.updateQueryData('readBoard', setId, (board) => {
    const before = new Map(board.students.map((student) => [student.enrolmentId, student.seats]));
    const applied = apply(before, place, board.set.isExclusive); // else the server says how it is
    if (applied.ok)
      for (const student of board.students) {
        const seats = sure(applied.placement.get(student.enrolmentId));
        if (seats !== before.get(student.enrolmentId))
          student.seats = seats.map((seat) => ({ handIns: 0, ...seat }));
      }
    board.set.unplaced = board.students.filter((student) => student.seats.length === 0).length;
  });

const placingApi = boardApi.injectEndpoints({
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
      // What is shown beside the Board is in the answer; the rest is asked for when someone looks at it.
      invalidatesTags: ['Roster', 'Room', 'Gradebook'],
      onQueryStarted: async ({ setId, place }, api) => {
        const shown = api.dispatch(showPlaced(setId, place));
        try {
          const { data } = await api.queryFulfilled;
          for (const change of countsAfter(setId, data, api.getState() as never)) api.dispatch(change);
        } catch (failure) {
          shown.undo();
          const error = (failure as { error?: unknown }).error;
          const current = BoardView.safeParse(problemOf(error).current);
          if (isProblem(error, 'stale-write') && current.success)
            void api.dispatch(boardApi.util.upsertQueryData('readBoard', setId, current.data));
        }
      },
    }),
    readMoves: build.query<MovesOf, { readonly setId: string; readonly before: string | null }>({
      query: ({ setId, before }) =>
        `sets/${setId}/moves${before === null ? '' : `?before=${encodeURIComponent(before)}`}`,
      responseSchema: MovesOf,
      // Told anew each time it is opened: nothing else asks for it.
      keepUnusedDataFor: 0,
      providesTags: ['Placement'],
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
    /** What comes back is how it is now, also when the place was just taken by someone else. */
    takePlace: build.mutation<SignUpView, { setId: string; groupId: string | null }>({
      query: ({ setId, groupId }) => ({ url: `sets/${setId}/sign-up`, method: 'POST', body: { groupId } }),
      responseSchema: SignUpView,
      invalidatesTags: ['SignUp', 'Room', 'Figures'],
    }),
    /** To be told by mail when a place in a full group is free, or no longer. */
    awaitPlace: build.mutation<SignUpView, { setId: string; groupId: string; isAwaited: boolean }>({
      query: ({ setId, groupId, isAwaited }) => ({
        url: `sets/${setId}/sign-up/awaited/${groupId}`,
        method: 'PUT',
        body: { isAwaited },
      }),
      responseSchema: SignUpView,
      invalidatesTags: ['SignUp'],
    }),
    /** A workbook as a table; it is read by the server. */
    readTable: build.mutation<TableView, { courseId: string; body: TableRequest }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/table`, method: 'POST', body }),
      responseSchema: TableView,
    }),
    editGroups: build.mutation<BoardGroups, { setId: string; body: EditGroups }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/groups`, method: 'PUT', body }),
      responseSchema: BoardGroups,
      invalidatesTags: ['Set', 'Placement', 'Roster', 'Room', 'Desk', 'Gradebook', 'Activity'],
    }),
    editTopics: build.mutation<BoardGroups, { setId: string; body: EditTopics }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/topics`, method: 'PUT', body }),
      responseSchema: BoardGroups,
      invalidatesTags: ['Set', 'Placement', 'Roster', 'Room', 'Desk', 'Gradebook', 'Activity'],
    }),
    leadGroups: build.mutation<BoardGroups, { setId: string; body: LeadGroups }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/leads`, method: 'PUT', body }),
      responseSchema: BoardGroups,
      invalidatesTags: ['Placement', 'Room', 'Desk', 'Gradebook'],
    }),
    editGroup: build.mutation<BoardGroup, { groupId: string; body: EditGroup }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}`, method: 'PATCH', body }),
      responseSchema: BoardGroup,
      invalidatesTags: ['Placement', 'Roster', 'Room', 'Desk', 'Gradebook'],
    }),
  }),
});

export const {
  useReadBoardQuery,
  useLazyReadBoardQuery,
  usePlaceStudentsMutation,
  useReadMovesQuery,
  useListSignUpsQuery,
  useReadSignUpQuery,
  useTakePlaceMutation,
  useAwaitPlaceMutation,
  useReadTableMutation,
  useEditGroupsMutation,
  useEditTopicsMutation,
  useLeadGroupsMutation,
  useEditGroupMutation,
} = placingApi;
