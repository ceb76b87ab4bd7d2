import { SignInLinks } from '@jigsaw/contract/identity';
import { CourseList, CourseView, ImportPreview, ImportResult, RosterView } from '@jigsaw/contract/roster';
import type { CreateCourse, ImportRequest, PreviewRequest } from '@jigsaw/contract/roster';
import { api } from '../api/index.js';

interface In<Body> {
  readonly courseId: string;
  readonly body: Body;
}

export const {
  useListCoursesQuery,
  useCreateCourseMutation,
  useReadRosterQuery,
  usePreviewImportMutation,
  useApplyImportMutation,
  useMakeSignInLinksMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    listCourses: build.query<CourseList, void>({ query: () => 'courses', responseSchema: CourseList, providesTags: ['Course'] }),
    createCourse: build.mutation<CourseView, CreateCourse>({
      query: (body) => ({ url: 'courses', method: 'POST', body }),
      responseSchema: CourseView,
      invalidatesTags: ['Course'],
    }),
    readRoster: build.query<RosterView, string>({ query: (courseId) => `courses/${courseId}/roster`, responseSchema: RosterView, providesTags: ['Roster'] }),
    previewImport: build.mutation<ImportPreview, In<PreviewRequest>>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/preview`, method: 'POST', body }),
      responseSchema: ImportPreview,
    }),
    applyImport: build.mutation<ImportResult, In<ImportRequest>>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/import`, method: 'POST', body }),
      responseSchema: ImportResult,
      invalidatesTags: ['Roster', 'Set', 'Placement', 'Figures'],
    }),
    makeSignInLinks: build.mutation<SignInLinks, string>({
      query: (courseId) => ({ url: `courses/${courseId}/roster/sign-in-links`, method: 'POST' }),
      responseSchema: SignInLinks,
    }),
  }),
});
