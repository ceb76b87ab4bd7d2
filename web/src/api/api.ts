import { nanoid } from '@reduxjs/toolkit';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { onlyLooking } from '@jigsaw/contract/common';
import { isProblem } from './problem.js';
import type { Query } from './query.js';
import { partSent } from './sendingState.js';
import { sendTelling } from './sendTelling.js';
import { sessionEnded } from './sessionState.js';
import { apiAddress, ownApiAddress, sitsIn } from './sitIn.js';
import { forgetAnswers, holdingAnswers } from './unchanged.js';

/** Names this page to the server, which then tells it which changes are its own. */
export const pageId = nanoid();

const plain = {
  baseUrl: new URL(apiAddress(''), window.location.origin).href,
  responseHandler: 'content-type',
  prepareHeaders: (headers: Headers) => headers.set('X-Jigsaw-Page', pageId),
} as const;
const ask = holdingAnswers(fetchBaseQuery(plain));
/** For the reader themselves, on pages that are shown to them as a student. */
const askAsReader = fetchBaseQuery({
  ...plain,
  baseUrl: new URL(ownApiAddress(''), window.location.origin).href,
});

/** Asks with a body that may be large; how far it is stands in the store meanwhile. */
const askTelling: Query = async (request, context, extra) => {
  const tell = (share: number | null) => context.dispatch(partSent(share));
  // fetchBaseQuery always calls it with a whole request
  const fetchFn: typeof fetch = (input) => sendTelling(input as Request, tell);
  try {
    return await fetchBaseQuery({ ...plain, fetchFn })(request, context, extra);
  } finally {
    tell(null);
  }
};

/** After these someone else may sit there. */
const changesWhoIsHere = new Set(['signIn', 'signInAsDemoPerson', 'openLink', 'signOut']);

/** fetchBaseQuery reads problem+json as text unless told otherwise; and a session that ends in the middle of work is noted, not thrown away. */
const baseQuery: Query = async (request, context, extra) => {
  // Nothing leaves a page that sits in, not even that something was seen.
  if (context.type === 'mutation' && sitsIn()) return { error: { status: 403, data: onlyLooking } };
  // endpoints without options of their own have none
  const options = extra as { tellsShare?: boolean; isReaders?: boolean } | undefined;
  const send = options?.isReaders ? askAsReader : options?.tellsShare ? askTelling : ask;
  const answer = await send(request, context, extra);
  if (answer.error && typeof answer.error.data === 'string') {
    try {
      answer.error.data = JSON.parse(answer.error.data);
    } catch {
      // not a problem document: problemOf says that the server does not answer
    }
  }
  if (answer.error && isProblem(answer.error, 'signed-out') && context.endpoint !== 'readSession')
    context.dispatch(sessionEnded());
  if (context.type === 'mutation' && changesWhoIsHere.has(context.endpoint)) forgetAnswers();
  return answer;
};

/** The facts that answers are made of. */
export const tagTypes = [
  'Session',
  'OpenSession',
  'CalendarAddress',
  'Call',
  'Course',
  'Roster',
  'Set',
  'Placement',
  'Audience',
  'Activity',
  'Check',
  'Outline',
  'Message',
  'MessageList',
  'Audit',
  'Copy',
  'Talk',
  'Post',
  'Room',
  'Stop',
  'Note',
  'Shelf',
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
