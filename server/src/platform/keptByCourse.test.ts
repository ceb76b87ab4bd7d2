import { beforeEach, expect, it } from '@jest/globals';
import type { CopyId, CourseId, ReleaseId } from '@jigsaw/core/ids';
import { Happenings } from './happenings.js';
import { KeptByCourse } from './keptByCourse.js';
import type { KeptFor } from './keptByCourse.js';

const course = 'course' as CourseId;
const [one, two] = ['one', 'two'] as ReleaseId[] as [ReleaseId, ReleaseId];
let happenings: Happenings;
let kept: KeptByCourse<ReleaseId, number>;
let counted: string[];
let figure: number;
beforeEach(() => {
  happenings = new Happenings();
  kept = new KeptByCourse(happenings);
  counted = [];
  figure = 1;
});

const ask = async (until: number | null = null, now = 0, of?: KeptFor) =>
  Object.fromEntries(
    await kept.all(
      course,
      [one, two],
      now,
      (missing) => {
        counted.push(missing.join(' '));
        const value = figure;
        return Promise.resolve(new Map(missing.map((key) => [key, { value, until }])));
      },
      of,
    ),
  );
const toCopies = (releaseId: ReleaseId) =>
  happenings.tell({
    courseId: course,
    type: 'post.added',
    copies: { releaseId, copyIds: ['copy' as CopyId] },
  });

it('counts all that is missing at once, and each only once', async () => {
  expect(await ask()).toEqual({ one: 1, two: 1 });
  figure = 2;
  expect(await ask()).toEqual({ one: 1, two: 1 });
  expect(counted).toEqual(['one two']);
});

it('counts again the release to whose copies something happened, and all of a course after anything else', async () => {
  await ask();
  figure = 2;
  toCopies(two);
  expect(await ask()).toEqual({ one: 1, two: 2 });
  figure = 3;
  happenings.tell({ courseId: course, type: 'post.added', copies: { releaseId: one, copyIds: null } });
  expect(await ask()).toEqual({ one: 3, two: 3 });
  figure = 4;
  happenings.tell({ courseId: 'another' as CourseId, type: 'set.changed', copies: null });
  expect(await ask()).toEqual({ one: 3, two: 3 });
  happenings.missed();
  expect(await ask()).toEqual({ one: 4, two: 4 });
  expect(counted).toEqual(['one two', 'two', 'one two', 'one two']);
});

it('does not keep what was counted while something happened', async () => {
  let end = (_value: ReadonlyMap<ReleaseId, { value: number; until: null }>) => undefined as void;
  const slow = kept.all(course, [one], 0, () => new Promise((resolve) => (end = resolve)));
  toCopies(one);
  end(new Map([[one, { value: 1, until: null }]]));
  expect((await slow).get(one)).toBe(1); // it was true when it was asked
  figure = 2;
  expect(await ask()).toEqual({ one: 2, two: 2 });
});

it('counts again once time has made it old', async () => {
  await ask(100, 50);
  figure = 2;
  expect(await ask(100, 99)).toEqual({ one: 1, two: 1 });
  expect(await ask(null, 100)).toEqual({ one: 2, two: 2 });
});

it('keeps nothing of a counting that failed', async () => {
  const failing = kept.all(course, [one], 0, () => Promise.reject(new Error('away')));
  await expect(failing).rejects.toThrow('away');
  expect(await ask()).toEqual({ one: 1, two: 1 });
});

it('keeps apart what is not the same for all, until something of theirs changes', async () => {
  const [ada, ben] = [
    { whom: 'ada', stamp: '1' },
    { whom: 'ben', stamp: '7' },
  ];
  await ask(null, 0, ada);
  figure = 2;
  expect(await ask(null, 0, ben)).toEqual({ one: 2, two: 2 });
  expect(await ask(null, 0, ada)).toEqual({ one: 1, two: 1 });
  expect(await ask(null, 0, { ...ada, stamp: '2' })).toEqual({ one: 2, two: 2 });
  figure = 3;
  expect(await ask(null, 0, ben)).toEqual({ one: 2, two: 2 });
  toCopies(two); // for all of them
  expect(await ask(null, 0, ben)).toEqual({ one: 2, two: 3 });
  expect(await ask(null, 0, { ...ada, stamp: '2' })).toEqual({ one: 2, two: 3 });
});

it('counts many a few at a time, so that other questions come in between', async () => {
  const many = Array.from({ length: 14 }, (_, at) => `release ${at}` as ReleaseId);
  const sizes: number[] = [];
  const all = await kept.all(course, many, 0, (missing) => {
    sizes.push(missing.length);
    return Promise.resolve(new Map(missing.map((key) => [key, { value: 1, until: null }])));
  });
  expect(all.size).toBe(14);
  expect(sizes).toEqual([6, 6, 2]);
});

it('is made old by what its keeper says, where that is not what happened to copies', async () => {
  kept = new KeptByCourse(happenings, ({ type }) => (type === 'post.added' ? 'nothing' : { key: two }));
  await ask();
  happenings.tell({ courseId: course, type: 'post.added', copies: null });
  await ask();
  expect(counted).toEqual(['one two']);
  happenings.tell({ courseId: course, type: 'set.changed', copies: null });
  await ask();
  expect(counted).toEqual(['one two', 'two']);
});
