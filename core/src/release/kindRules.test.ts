import { expect, it } from '@jest/globals';
import { mayAct } from './kindRules.js';

const rules = { acts: { write: ['member', 'staff'], steer: ['staff'] } } as const;

it.each([
  ['open', 'member', 'write', true],
  ['open', 'member', 'steer', false],
  ['open', 'staff', 'steer', true],
  ['open', 'reader', 'write', false],
  // Closed: its members may read, and do nothing.
  ['read-only', 'member', 'write', false],
  ['listed', 'member', 'write', false],
  ['hidden', 'staff', 'steer', false],
] as const)('what is %s to a %s lets them %s: %s', (access, part, act, may) =>
  expect(mayAct(rules, act, { access, part })).toBe(may),
);
