import type { AddNote, ChangeNote } from '@jigsaw/contract/notes';
import { NoteList, NoteView } from '@jigsaw/contract/notes';
import type { NoteId } from '@jigsaw/core/ids';
import { api } from '../api/index.js';

interface OfGroup {
  readonly groupId: string;
}
interface OfNote extends OfGroup {
  readonly noteId: NoteId;
}

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    listNotes: build.query<NoteList, string>({
      query: (groupId) => `groups/${groupId}/notes`,
      responseSchema: NoteList,
      providesTags: ['Note'],
    }),
  }),
});

interface Lifecycle {
  readonly dispatch: (action: never) => unknown;
  readonly queryFulfilled: Promise<{ readonly data: NoteList }>;
}
/** Such an act answers with the notes as they are after it. */
async function show({ groupId }: OfGroup, { dispatch, queryFulfilled }: Lifecycle): Promise<void> {
  const answer = await queryFulfilled.catch(() => null);
  if (answer === null) return; // the refusal is told where the act was
  (dispatch as (action: unknown) => unknown)(readApi.util.upsertQueryData('listNotes', groupId, answer.data));
}
/** What was refused was asked of notes that are not so any more. */
const whenRefused = (_answer: unknown, error: unknown): readonly 'Note'[] => (error ? ['Note'] : []);
const answersAll = { responseSchema: NoteList, onQueryStarted: show, invalidatesTags: whenRefused } as const;

const writeApi = readApi.injectEndpoints({
  endpoints: (build) => ({
    addNote: build.mutation<NoteView, OfGroup & { readonly body: AddNote }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}/notes`, method: 'POST', body }),
      responseSchema: NoteView,
      invalidatesTags: ['Note'],
    }),
    changeNote: build.mutation<NoteList, OfNote & { readonly body: ChangeNote }>({
      query: ({ noteId, body }) => ({ url: `notes/${noteId}`, method: 'PUT', body }),
      ...answersAll,
    }),
    removeNote: build.mutation<NoteList, OfNote>({
      query: ({ noteId }) => ({ url: `notes/${noteId}`, method: 'DELETE' }),
      ...answersAll,
    }),
    restoreNote: build.mutation<NoteList, OfNote>({
      query: ({ noteId }) => ({ url: `notes/${noteId}/restore`, method: 'POST' }),
      ...answersAll,
    }),
  }),
});

export const { useListNotesQuery } = readApi;
export const { useAddNoteMutation, useChangeNoteMutation, useRemoveNoteMutation, useRestoreNoteMutation } =
  writeApi;
