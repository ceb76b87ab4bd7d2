import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { CopyId, EnrolmentId, PostId } from '../ids/index.js';
import { inOrderOfNeed, needCodes, scoreOf, scoreOfRoom, silentMs, soonMs, stopsWithin } from './index.js';
import type { Need } from './index.js';

const hour = 3_600_000;
const day = 24 * hour;
const now = 1_000 * day;
const copyId = 'copy' as CopyId;
const question = (daysAgo: number, count = 1): Need => ({ code: 'question', copyId, postId: 'post' as PostId, since: now - daysAgo * day, newest: now - daysAgo * day, count }); // prettier-ignore
const nothingYet = (hours: number): Need => ({ code: 'nothing-yet', copyId, due: now + hours * hour });
const missing = (daysAgo: number): Need => ({ code: 'missing', copyId, since: now - daysAgo * day });
const toMark = (daysAgo: number, isLate = false): Need => ({ code: 'to-mark', copyId, unit: 'group', since: now - daysAgo * day, newest: now - daysAgo * day, isLate }); // prettier-ignore
const silent = (daysAgo: number): Need => ({ code: 'silent', enrolmentId: 'noor' as EnrolmentId, since: now - daysAgo * day }); // prettier-ignore

describe('how much a need asks for a person', () => {
  it('is as docs/rooms.md says', () => {
    expect(scoreOf(question(0), now)).toBe(80);
    expect(scoreOf(question(2, 3), now)).toBe(86);
    expect(scoreOf(question(30, 30), now)).toBe(99);
    expect(scoreOf(nothingYet(48), now)).toBe(60);
    expect(scoreOf(nothingYet(24), now)).toBe(69.5);
    expect(scoreOf(missing(3), now)).toBe(46);
    expect(scoreOf(toMark(4), now)).toBe(24);
    expect(scoreOf(toMark(4, true), now)).toBe(29);
    expect(scoreOf(silent(14), now)).toBe(1);
    expect(scoreOf(silent(20), now)).toBe(7);
  });

  const ago = fc.double({ min: 0, max: 400, noNaN: true });
  const kinds = [
    fc.tuple(ago, fc.integer({ min: 1, max: 50 })).map(([at, count]) => question(at, count)),
    fc.double({ min: 0, max: soonMs / hour, noNaN: true }).map(nothingYet),
    ago.map(missing),
    fc.tuple(ago, fc.boolean()).map(([at, isLate]) => toMark(at, isLate)),
    ago.map((at) => silent(at + silentMs / day)),
  ];

  it('puts every need of one sort before every need of the next', () => {
    fc.assert(
      fc.property(fc.tuple(...kinds), (one) => {
        const scores = one.map((need) => scoreOf(need, now));
        expect(scores).toEqual(scores.toSorted((a, b) => b - a));
        expect(new Set(scores).size).toBe(scores.length);
        expect(one.map(({ code }) => code)).toEqual(needCodes);
      }),
    );
  });

  it('never falls as time passes, and is never nothing', () => {
    fc.assert(
      fc.property(fc.oneof(...kinds), fc.double({ min: 0, max: day, noNaN: true }), (need, later) => {
        expect(scoreOf(need, now + later)).toBeGreaterThanOrEqual(scoreOf(need, now));
        expect(scoreOf(need, now)).toBeGreaterThan(0);
      }),
    );
  });

  it('never puts a room in which all is settled before one that has something open, nor one with less of the same', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(...kinds), { minLength: 1, maxLength: 8 }), (needs) => {
        expect(scoreOfRoom(needs, now)).toBeGreaterThan(scoreOfRoom([], now));
        const [, ...less] = inOrderOfNeed(needs, now);
        expect(scoreOfRoom(needs, now)).toBeGreaterThanOrEqual(scoreOfRoom(less, now));
        expect(inOrderOfNeed(needs.toReversed(), now).map((need) => scoreOf(need, now))).toEqual(inOrderOfNeed(needs, now).map((need) => scoreOf(need, now))); // prettier-ignore
      }),
    );
  });
});

describe('the stops that fit into some minutes', () => {
  const rooms = [{ needs: [question(1)] }, { needs: [] }, { needs: [toMark(3)] }, { needs: [silent(15)] }];

  it('are the first ones, each with what is most pressing there', () => {
    expect(stopsWithin(rooms, 10).map(({ need, minutes }) => [need.code, minutes])).toEqual([['question', 2], ['to-mark', 5], ['silent', 1]]); // prettier-ignore
    expect(stopsWithin(rooms, 5).map(({ need }) => need.code)).toEqual(['question']);
  });

  it('are one at least, and none where no room needs anyone', () => {
    expect(stopsWithin(rooms, 1)).toHaveLength(1);
    expect(stopsWithin([{ needs: [] }], 30)).toEqual([]);
  });
});
