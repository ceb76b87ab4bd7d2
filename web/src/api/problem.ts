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
