import { expect, it } from '@jest/globals';
import { restOfStep, untilNextStep } from './steady.js';

it('waits for the end of the step that the work is in, whatever part of it is over', () => {
  expect([0, 3, 99.5, 100, 250].map((workedMs) => workedMs + restOfStep(workedMs, 100))).toEqual([
    100, 100, 100, 200, 300,
  ]);
});

it('does not end before the step does', async () => {
  const began = performance.now();
  await untilNextStep(0, 30);
  expect(performance.now() - began).toBeGreaterThanOrEqual(30);
});

it('does not wait where no steps are set', async () => {
  let isOver = false;
  const waiting = untilNextStep(0, 0).then(() => (isOver = true));
  await Promise.resolve();
  await Promise.resolve();
  expect(isOver).toBe(true);
  await waiting;
});
