import { expect, it } from '@jest/globals';
import type { ActivityId, GroupId } from '../ids/index.js';
import type { Held, Told } from './index.js';
import { foldAlike } from './index.js';

const held = (access: Held['access'], ...own: (readonly [string | null, number])[]): Held => ({
  access,
  own: own.map(([name, due]) => ({ groupId: name as GroupId | null, due })),
  reads: 0,
});
const told = (before: Held, after: Held, students = 2, activityId = 'report' as ActivityId): Told => ({ activityId, before, after, students }); // prettier-ignore
const groups = ['a', 'b', 'c', 'd', 'e'];
const none = held('hidden');
const lose = (name: string, due = 5, activity?: ActivityId) => told(held('open', [name, due]), none, 3, activity); // prettier-ignore
const short = (all: readonly Told[]) => foldAlike(all, 4).map(({ first, students, eachOf }) => [(first.before.own[0] ?? first.after.own[0])?.groupId ?? null, students, eachOf]); // prettier-ignore

it('tells few groups one by one', () =>
  expect(short(groups.slice(1).map((name) => lose(name)))).toEqual(groups.slice(1).map((name) => [name, 3, null]))); // prettier-ignore

it('tells many once, those with another due date and another activity by themselves', () => {
  const rest = [lose('f', 9), lose('g', 5, 'memo' as ActivityId)];
  expect(short([...groups.map((name) => lose(name)), ...rest])).toEqual([['a', 15, 5], ['f', 3, null], ['g', 3, null]]); // prettier-ignore
});

it('never folds who goes from one group to another, nor who loses the copy for all', () => {
  const moves = groups.map((name) => told(held('open', [name, 5]), held('open', [`${name}2`, 5])));
  expect(short(moves)).toHaveLength(5);
  const all = told(held('open', [null, 5]), none, 48);
  expect(short([all, ...groups.map((name) => lose(name))])).toEqual([[null, 48, null], ['a', 15, 5]]); // prettier-ignore
});
