import { Problem } from '@jigsaw/contract/common';

const away: Problem = {
  type: '/problems/unreachable',
  title: 'Not reachable',
  status: 0,
  detail: 'The server does not answer. What you typed is still here; try again in a moment.',
};

/** Whatever went wrong with a request, as a problem with a sentence. */
export function problemOf(error: unknown): Problem {
  const data = (error as { data?: unknown } | undefined)?.data;
  const parsed = Problem.safeParse(data);
  return parsed.success ? parsed.data : away;
}

export const isProblem = (error: unknown, type: string): boolean =>
  problemOf(error).type === `/problems/${type}`;

/** It says nothing about what was asked for: the server, or what is behind it, did not answer. */
export const isAway = (error: unknown): boolean => {
  const { status } = problemOf(error);
  return status === 0 || status >= 500;
};

/** It is not there, or no longer this person's to see. */
const isGone = (error: unknown): boolean => [403, 404, 410].includes(problemOf(error).status);

/** Why a page cannot show something: it never came, or it is no longer there for this person. What is shown stays shown while the server is away or the
 * session has ended: someone may be writing in it.
 * @returns undefined: it can */
export const unshown = ({
  currentData,
  error,
}: {
  readonly currentData?: unknown;
  readonly error?: unknown;
}): unknown => (error !== undefined && (currentData === undefined || isGone(error)) ? error : undefined);
