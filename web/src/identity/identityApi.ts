import { Done } from '@jigsaw/contract/common';
import { FrontDoor, LinkView, SessionView } from '@jigsaw/contract/identity';
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
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
  }),
});
