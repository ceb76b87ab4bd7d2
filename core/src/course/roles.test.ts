import { expect, it } from '@jest/globals';
import type { Act, Role } from './index.js';
import { may } from './index.js';

const acts: readonly Act[] = [
  'read-course',
  'manage-roster',
  'manage-groups',
  'place',
  'release',
  'mark',
  'write-to-people',
  'keep-notes',
  'sit-in',
];

it('gives each role these acts and no other', () => {
  const of = (role: Role) => acts.filter((act) => may(role, act));
  expect(of('instructor')).toEqual(acts);
  expect(of('assistant')).toEqual(['read-course', 'place', 'mark', 'write-to-people', 'keep-notes']);
  expect(of('observer')).toEqual(['read-course']);
  expect(of('student')).toEqual([]);
});
