import { FrontDoor, SessionView } from '@jigsaw/contract/identity';
import type { ChoosePassword, SignIn } from '@jigsaw/contract/identity';
import { api } from '../api/index.js';

export const {
  useReadSessionQuery,
  useReadFrontDoorQuery,
  useSignInMutation,
  useSignInAsDemoPersonMutation,
  useSignOutMutation,
  useChoosePasswordMutation,
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
    choosePassword: build.mutation<SessionView, ChoosePassword>({
      query: (body) => ({ url: 'session/password', method: 'POST', body }),
      responseSchema: SessionView,
    }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
  }),
});
