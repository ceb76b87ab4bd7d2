import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';

const pages = new AsyncLocalStorage<string>();

/** A page names itself with each request, so that it can be told which changes are its own. */
export const pageHeader = 'x-jigsaw-page';

export function rememberPage(request: Request, _response: Response, next: NextFunction): void {
  const page = request.headers[pageHeader];
  if (typeof page === 'string' && /^[\w-]{1,40}$/.test(page)) pages.run(page, next);
  else next();
}

/** null: the request did not say, or there is none. */
export const pageOfRequest = (): string | null => pages.getStore() ?? null;
