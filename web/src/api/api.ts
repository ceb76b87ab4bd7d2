import { nanoid } from '@reduxjs/toolkit';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { BaseQueryFn, FetchArgs, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import { isProblem } from './problem.js';
import { sessionEnded } from './sessionState.js';

/** Names this page to the server, which then tells it which changes are its own. */
export const pageId = nanoid();

const ask = fetchBaseQuery({
  baseUrl: new URL('/api/', window.location.origin).href,
  responseHandler: 'content-type',
  prepareHeaders: (headers) => headers.set('X-Jigsaw-Page', pageId),
});

/** fetchBaseQuery reads problem+json as text unless told otherwise; and a session that ends in the middle of work is noted, not thrown away. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (
  request,
  context,
  extra,
) => {
  const answer = await ask(request, context, extra);
  if (answer.error && typeof answer.error.data === 'string') {
    try {
      answer.error.data = JSON.parse(answer.error.data);
    } catch {
      // not a problem document: problemOf says that the server does not answer
    }
  }
  if (answer.error && isProblem(answer.error, 'signed-out') && context.endpoint !== 'readSession')
    context.dispatch(sessionEnded());
  return answer;
};

/** The facts that answers are made of. */
export const tagTypes = [
  'Session',
  'OpenSession',
  'Course',
  'Roster',
  'Set',
  'Placement',
  'Activity',
  'Copy',
  'Room',
  'Desk',
  'Gradebook',
  'Mark',
  'MyMarks',
  'Figures',
  'Outbox',
  'SignUp',
] as const;

/** One cache for the whole page; each area adds its endpoints. Tags name facts, not addresses. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes,
  refetchOnReconnect: true,
  endpoints: () => ({}),
});
