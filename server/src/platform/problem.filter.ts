import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { Catch, HttpException, Inject } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Config } from './config.js';
import { CONFIG } from './config.js';
import { refusedByDatabase } from './databaseErrors.js';
import { goneOfRequest, hasCommitted, workedOnForMs } from './requestContext.js';
import { Problem, problems } from './problems.js';
import { untilNextStep } from './steady.js';

const awayCodes = new Set(['ECONNREFUSED', 'ECONNRESET', '57P01', '57P03', '08006', '08001']);

/** The one way out for everything that is refused or breaks: problem+json, without inner details. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  async catch(error: unknown, host: ArgumentsHost): Promise<void> {
    const request = host.switchToHttp().getRequest<Request>();
    const response = host.switchToHttp().getResponse<Response>();
    if (goneOfRequest()?.aborted && isAbort(error)) return; // stopped because no one waits for it
    const found = problemOf(error);
    const problem = found.status >= 500 && hasCommitted() ? problems.savedUnread() : found;
    if (problem.status >= 500) request.log.error({ err: error, problem: problem.type }, 'request failed');
    if (response.headersSent) {
      response.destroy(); // a stream broke half way: the receiver must not take it for whole
      return;
    }
    // What is hidden takes longer to find than what is not there: no one is to tell one from the other by that.
    if (problem.type === 'not-found') await untilNextStep(workedOnForMs(), this.config.notFoundStepMs);
    if (problem.facts.retryAfterSeconds !== undefined)
      response.setHeader('Retry-After', String(Math.ceil(problem.facts.retryAfterSeconds)));
    sendProblem(response, problem);
  }
}

const isAbort = (error: unknown) => error instanceof Error && error.name === 'AbortError';

export function sendProblem(response: Response, problem: Problem): void {
  response
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: `/problems/${problem.type}`,
        title: problem.title,
        status: problem.status,
        detail: problem.detail,
        issues: problem.facts.issues,
        current: problem.facts.current,
      }),
    );
}

function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof HttpException) {
    if (error.getStatus() === 404) return problems.notFound();
    if (error.getStatus() === 413) return problems.tooLarge();
    if (error.getStatus() < 500) return problems.invalidInput('The request could not be read.');
    return problems.broken();
  }
  const { status, code } = error as { status?: unknown; code?: unknown };
  if (status === 413) return problems.tooLarge();
  // What express says of an address or a header that it cannot take apart.
  if (typeof status === 'number' && status >= 400 && status < 500)
    return problems.invalidInput('The request could not be read.');
  // What the pool says when no one's turn came in time; it has no code.
  if (error instanceof Error && error.message.startsWith('timeout exceeded when trying to connect'))
    return problems.busy();
  return (
    refusedByDatabase(error) ??
    (typeof code === 'string' && awayCodes.has(code) ? problems.databaseAway() : problems.broken())
  );
}
