import { setImmediate, setTimeout } from 'node:timers/promises';

/** Timers may come early or late by about this much; the last bit is waited for turn by turn. */
const coarseMs = 2;

/** Waits until a whole number of steps has passed, so that how long the work took before it cannot be told from outside.
 * @param workedMs so far. @param stepMs 0: does not wait. */
export async function untilNextStep(workedMs: number, stepMs: number): Promise<void> {
  if (stepMs === 0) return;
  const until = performance.now() + restOfStep(workedMs, stepMs);
  const rest = until - performance.now() - coarseMs;
  if (rest > 0) await setTimeout(rest);
  while (performance.now() < until) await setImmediate();
}

/** @returns ms until the next whole step. */
export const restOfStep = (workedMs: number, stepMs: number): number =>
  (Math.floor(workedMs / stepMs) + 1) * stepMs - workedMs;
