import { Done } from '@jigsaw/contract/common';
import { FrontDoor, LinkView, OpenSessions, SessionView } from '@jigsaw/contract/identity';
import type { MailLink, OpenLink, SignIn } from '@jigsaw/contract/identity';
import { api } from '../api/index.js';

export const {
  useReadSessionQuery,
  useReadFrontDoorQuery,
  useSignInMutation,
  useSignInAsDemoPersonMutation,
  useSignOutMutation,
  useLookAtLinkMutation,
  useOpenLinkMutation,
  useMailLinkMutation,
  useReadOpenSessionsQuery,
  useEndSessionMutation,
  useEndOtherSessionsMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    readSession: build.query<SessionView, void>({
      query: () => 'session',
      responseSchema: SessionView,
      providesTags: ['Session'],
    }),
    readFrontDoor: build.query<FrontDoor, void>({
      query: () => 'session/front-door',
      responseSchema: FrontDoor,
    }),
    signIn: build.mutation<SessionView, SignIn>({
      query: (body) => ({ url: 'session', method: 'POST', body }),
      responseSchema: SessionView,
    }),
    signInAsDemoPerson: build.mutation<SessionView, string>({
      query: (personId) => ({ url: 'session/demo', method: 'POST', body: { personId } }),
      responseSchema: SessionView,
    }),
    lookAtLink: build.mutation<LinkView, string>({
      query: (token) => ({ url: 'session/link', method: 'POST', body: { token } }),
      responseSchema: LinkView,
    }),
    openLink: build.mutation<SessionView, OpenLink>({
      query: (body) => ({ url: 'session/password', method: 'POST', body }),
      responseSchema: SessionView,
    }),
    mailLink: build.mutation<Done, MailLink>({
      query: (body) => ({ url: 'session/mailed-link', method: 'POST', body }),
      responseSchema: Done,
    }),
    readOpenSessions: build.query<OpenSessions, void>({
      query: () => 'session/open',
      responseSchema: OpenSessions,
      providesTags: ['OpenSession'],
    }),
    endSession: build.mutation<Done, string>({
      query: (sessionId) => ({ url: `session/open/${sessionId}`, method: 'DELETE' }),
      responseSchema: Done,
      invalidatesTags: ['OpenSession'],
    }),
    endOtherSessions: build.mutation<Done, void>({
      query: () => ({ url: 'session/open', method: 'DELETE' }),
      responseSchema: Done,
      invalidatesTags: ['OpenSession'],
    }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
  }),
});
