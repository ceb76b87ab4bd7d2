import type { FetchArgs } from '@reduxjs/toolkit/query/react';

interface Known {
  readonly mark: string;
  readonly data: unknown;
}
/** What the server answered last, by address, with the mark that it gave its answer. The browser keeps nothing of it: whoever comes to the same machine
 * later finds nothing. */
const known = new Map<string, Known>();
const mostKnown = 60;

const addressOf = (request: string | FetchArgs): string | null =>
  typeof request === 'string'
    ? request
    : (request.method ?? 'GET') === 'GET' && request.params === undefined
      ? request.url
      : null;

/** The request, with the mark of the answer that is here: if that is what would be answered, only this is said. */
export function askForChanges(request: string | FetchArgs): string | FetchArgs {
  const address = addressOf(request);
  const mark = address === null ? undefined : known.get(address)?.mark;
  if (mark === undefined) return request;
  const plain = typeof request === 'string' ? { url: request } : request;
  // Browsers ask for a whole answer with "no-cache" wherever a page names a mark itself.
  return { ...plain, headers: { 'If-None-Match': mark, 'Cache-Control': 'max-age=0' } };
}

/** @returns what is here, as the server has just said that it is unchanged. */
export const unchanged = (request: string | FetchArgs): unknown => known.get(addressOf(request) ?? '')?.data;

export function rememberAnswer(request: string | FetchArgs, response: Response, data: unknown): void {
  const address = addressOf(request);
  const mark = response.headers.get('ETag');
  if (address === null || mark === null) return;
  known.delete(address);
  known.set(address, { mark, data });
  const [oldest] = known.keys();
  if (known.size > mostKnown && oldest !== undefined) known.delete(oldest);
}

/** Somebody else may use this page now. */
export const forgetAnswers = (): void => known.clear();
