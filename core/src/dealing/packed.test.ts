import { expect, it } from '@jest/globals';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { dealAll, packDeal, unpackDeal } from './index.js';
import type { DealProblem } from './index.js';

it('a deal travels as whole numbers and arrives as it was', () => {
  const problem: DealProblem = {
    students: ['Ada', 'Ben', 'Cho'].map((name) => ({
      id: name as EnrolmentId,
      name,
      attributes: {},
      fixedIn: null,
    })),
    groups: ['One', 'Two'].map((name) => ({ id: name as GroupId, name, capacity: 1, isLocked: false })),
    rules: [],
    seed: 3,
  };
  const dealt = dealAll(problem);
  if (!dealt.ok) throw new Error('no deal');
  const packed = packDeal(problem, dealt.deal);
  expect([...packed.seats].sort()).toEqual([-1, 0, 1]);
  expect(unpackDeal(problem, JSON.parse(JSON.stringify(packed)))).toEqual(dealt.deal);
});
