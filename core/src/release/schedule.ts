import type { Schedule } from './facts.js';

/** Opens, due and closes must come in that order; any of them may be missing. */
export function inOrder({ opens, due, closes }: Schedule): boolean {
  const given = [opens, due, closes].filter((at) => at !== null);
  return given.every((at, index) => index === 0 || given[index - 1]! <= at);
}
