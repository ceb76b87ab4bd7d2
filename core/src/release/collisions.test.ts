import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ActivityId, EnrolmentId } from '../ids/index.js';
import { collisionsOf, dayAt } from './index.js';
import type { DueFor } from './index.js';

const at = (iso: string) => Date.parse(iso);
const due = (student: string, activityId: string, iso: string): DueFor => ({
  student: student as EnrolmentId,
  activityId: activityId as ActivityId,
  due: at(iso),
});

describe('the day of a moment', () => {
  it('is the one that calendars in the course’s zone show', () => {
    expect(dayAt(at('2026-11-30T23:30:00Z'), 'Europe/Lisbon')).toBe('2026-11-30');
    expect(dayAt(at('2026-11-30T23:30:00Z'), 'Europe/Berlin')).toBe('2026-12-01');
    expect(dayAt(at('2026-12-01T04:59:59Z'), 'America/New_York')).toBe('2026-11-30');
    expect(dayAt(at('2026-07-01T23:30:00Z'), 'Europe/Lisbon')).toBe('2026-07-02');
  });
});

describe('what falls due on one day for the same students', () => {
  it('is told by day, with all who have just that', () => {
    const found = collisionsOf(
      [
        due('noor', 'log', '2026-12-02T09:00:00Z'),
        due('jorge', 'log', '2026-12-02T09:00:00Z'),
        due('noor', 'sheet', '2026-12-02T17:00:00Z'),
        due('jorge', 'sheet', '2026-12-02T17:00:00Z'),
        due('amina', 'sheet', '2026-12-02T17:00:00Z'),
        due('noor', 'memo', '2026-12-04T17:00:00Z'),
      ],
      'Europe/Lisbon',
    );
    expect(found).toEqual([
      { day: '2026-12-02', activityIds: ['log', 'sheet'], students: ['noor', 'jorge'] },
    ]);
  });

  it('stands apart for those who have one thing more', () => {
    const day = '2026-12-02T09:00:00Z';
    const found = collisionsOf(
      [...['a', 'b', 'c'].flatMap((who) => [due(who, 'x', day), due(who, 'y', day)]), due('c', 'z', day)],
      'UTC',
    );
    expect(found.map(({ activityIds, students }) => [activityIds.join(''), students.join('')])).toEqual([
      ['xy', 'ab'],
      ['xyz', 'c'],
    ]);
  });

  it('is none where one thing is due twice, in two groups', () =>
    expect(
      collisionsOf(
        [due('noor', 'log', '2026-12-02T09:00:00Z'), due('noor', 'log', '2026-12-02T10:00:00Z')],
        'UTC',
      ),
    ).toEqual([]));

  it('names each student’s full days, and no others, whatever the order', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            student: fc.constantFrom('a', 'b', 'c'),
            activityId: fc.constantFrom('x', 'y', 'z'),
            due: fc.integer({ min: 0, max: 3 }).map((days) => days * 86_400_000 + 3_600_000),
          }),
        ),
        (given) => {
          const dues = given as unknown as DueFor[];
          const found = collisionsOf(dues, 'UTC').flatMap(({ day, activityIds, students }) =>
            students.map((student) => `${day} ${student} ${activityIds.join('')}`),
          );
          const wanted = ['a', 'b', 'c'].flatMap((student) =>
            [0, 1, 2, 3].flatMap((days) => {
              const day = `1970-01-0${days + 1}`;
              const own = ['x', 'y', 'z'].filter((id) =>
                dues.some(
                  (each) =>
                    each.student === student && each.activityId === id && dayAt(each.due, 'UTC') === day,
                ),
              );
              return own.length > 1 ? [`${day} ${student} ${own.join('')}`] : [];
            }),
          );
          expect([...found].sort()).toEqual(wanted.sort());
          expect(collisionsOf([...dues].reverse(), 'UTC')).toHaveLength(collisionsOf(dues, 'UTC').length);
        },
      ),
    ));
});
