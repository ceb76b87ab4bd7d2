import { PlacesOf } from '@jigsaw/contract/placing';
import { SignInLinks } from '@jigsaw/contract/identity';
import { ImportPreview, ImportResult } from '@jigsaw/contract/import';
import { RegistrarView, RosterAttributes, RosterChanged, RosterChangeList } from '@jigsaw/contract/roster';
import type { ImportRequest, PreviewRequest } from '@jigsaw/contract/import';
import type { ChooseKind, RosterAct } from '@jigsaw/contract/roster';
import { api } from '../api/index.js';

interface In<Body> {
  readonly courseId: string;
  readonly body: Body;
}

const touchedByRoster = ['Roster', 'Set', 'Placement', 'Figures', 'Room', 'Gradebook'] as const;

export const {
  useReadRegistrarQuery,
  usePreviewImportMutation,
  useApplyImportMutation,
  useMakeSignInLinksMutation,
  useChangeRosterMutation,
  useChooseKindMutation,
  useListRosterChangesQuery,
  useReadPlacesQuery,
  useUndoRosterChangeMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    readRegistrar: build.query<RegistrarView, string>({
      query: (courseId) => `courses/${courseId}/registrar`,
      responseSchema: RegistrarView,
    }),
    previewImport: build.mutation<ImportPreview, In<PreviewRequest>>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/preview`, method: 'POST', body }),
      responseSchema: ImportPreview,
      extraOptions: { tellsShare: true },
    }),
    applyImport: build.mutation<ImportResult, In<ImportRequest>>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/import`, method: 'POST', body }),
      responseSchema: ImportResult,
      invalidatesTags: [...touchedByRoster],
    }),
    changeRoster: build.mutation<RosterChanged, In<RosterAct>>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/changes`, method: 'POST', body }),
      responseSchema: RosterChanged,
      invalidatesTags: [...touchedByRoster],
    }),
    chooseKind: build.mutation<RosterAttributes, In<ChooseKind>>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/attributes`, method: 'PUT', body }),
      responseSchema: RosterAttributes,
      invalidatesTags: ['Roster'],
    }),
    listRosterChanges: build.query<RosterChangeList, string>({
      query: (courseId) => `courses/${courseId}/roster/changes`,
      responseSchema: RosterChangeList,
      providesTags: ['Roster'],
    }),
    readPlaces: build.query<PlacesOf, { readonly courseId: string; readonly enrolmentId: string }>({
      query: ({ courseId, enrolmentId }) => `courses/${courseId}/roster/${enrolmentId}/places`,
      responseSchema: PlacesOf,
      providesTags: ['Roster'],
    }),
    undoRosterChange: build.mutation<RosterChanged, { readonly courseId: string; readonly changeId: string }>(
      {
        query: ({ courseId, changeId }) => ({
          url: `courses/${courseId}/roster/changes/${changeId}/undo`,
          method: 'POST',
        }),
        responseSchema: RosterChanged,
        invalidatesTags: [...touchedByRoster],
      },
    ),
    makeSignInLinks: build.mutation<SignInLinks, string>({
      query: (courseId) => ({ url: `courses/${courseId}/roster/sign-in-links`, method: 'POST' }),
      responseSchema: SignInLinks,
    }),
  }),
});
