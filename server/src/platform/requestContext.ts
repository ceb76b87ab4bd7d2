import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';

interface RequestContext {
  readonly page: string | null;
  arrivedAt: Date | null;
  hasCommitted: boolean;
  /** On the clock of `performance`, ms: when it began, or once its body was read. */
  countsFrom: number;
  readonly gone: AbortSignal;
}

const contexts = new AsyncLocalStorage<RequestContext>();

/** A page names itself with each request, so that it can be told which changes are its own. */
export const pageHeader = 'x-jigsaw-page';

export function rememberPage(request: Request, response: Response, next: NextFunction): void {
  const said = request.headers[pageHeader];
  const page = typeof said === 'string' && /^[\w-]{1,40}$/.test(said) ? said : null;
  const gone = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) gone.abort();
  });
  const countsFrom = performance.now();
  contexts.run({ page, arrivedAt: null, hasCommitted: false, countsFrom, gone: gone.signal }, next);
}

/** Once its body was read: what someone sent in time is in time, however long it then waits for its turn. */
export function noteArrival(at: Date): void {
  const context = contexts.getStore();
  if (!context) return;
  context.arrivedAt = at;
  context.countsFrom = performance.now();
}

/** null: the request did not say, or there is none. */
export const pageOfRequest = (): string | null => contexts.getStore()?.page ?? null;

/** When the request arrived whole; null: there is none. */
export const arrivalOfRequest = (): Date | null => contexts.getStore()?.arrivedAt ?? null;

/** Aborted when the asker does not wait for the answer any more. */
export const goneOfRequest = (): AbortSignal | undefined => contexts.getStore()?.gone;

/** What the request asked for is kept from here on, whatever happens to its answer. */
export function noteCommit(): void {
  const context = contexts.getStore();
  if (context) context.hasCommitted = true;
}

/** How long the request has been worked on, ms. */
export const workedOnForMs = (): number =>
  performance.now() - (contexts.getStore()?.countsFrom ?? performance.now());

export const hasCommitted = (): boolean => contexts.getStore()?.hasCommitted ?? false;
