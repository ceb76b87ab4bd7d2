import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { addressOf, benches, demoPassword, latecomers, moved, offered, staff, vessels } from './people.js';
import { figuresOf, readingsCsv } from './texts.js';
import { StoryClock } from './storyClock.js';

describe('the made-up class', () => {
  const everyone = [...vessels.flatMap((vessel) => benches[vessel]), moved, ...latecomers];

  it('has addresses of its own school only, each in plain letters', () => {
    for (const student of everyone)
      expect(addressOf(student)).toMatch(/^[a-z-]+\.[a-z-]+@quillmere\.example$/);
    expect(new Set(everyone.map((student) => addressOf(student))).size).toBe(everyone.length);
  });

  it('tells two of one name apart', () => {
    const first = sure(benches.Barrel[2]);
    expect(addressOf(first, true)).not.toBe(addressOf(first));
  });

  it('offers only people who are in it', () => {
    const known = new Set([
      staff.instructor.email,
      staff.observer.email,
      ...staff.assistants.map((each) => each.email),
      ...everyone.map((student) => addressOf(student)),
    ]);
    for (const person of offered) expect(known).toContain(person.email);
    expect(demoPassword.length).toBeGreaterThanOrEqual(10);
  });

  it('has readings that fall, the same at every load', () => {
    for (const vessel of vessels) {
      const { start, end } = figuresOf(vessel);
      expect(Number(start)).toBeGreaterThan(Number(end));
      expect(readingsCsv(vessel)).toBe(readingsCsv(vessel));
      expect(readingsCsv(vessel).split('\n')[1]).toMatch(new RegExp(`^0,${start},`));
    }
  });
});

describe('the clock of the story', () => {
  const today = new Date('2026-11-25T12:00:00Z'); // a Wednesday
  let clock: StoryClock;
  beforeAll(() => {
    clock = new StoryClock(today);
  });
  afterAll(() => clock.daysAgo(0, '12:00'));

  it('speaks of weeks and days in the course’s zone, summer time or not', () => {
    expect(clock.at(0, 'Mon 09:00')).toBe('2026-11-23T09:00:00.000Z');
    expect(clock.at(1, 'Fri 17:00')).toBe('2026-11-20T17:00:00.000Z');
    expect(clock.at(6, 'Mon 09:00')).toBe('2026-10-12T08:00:00.000Z'); // Lisbon is an hour ahead in October
    expect(clock.inDays(2, '17:00')).toBe('2026-11-27T17:00:00.000Z');
  });

  it('never stands still, so that two things do not happen at one moment', () => {
    clock.daysAgo(3, '10:00');
    const [one, other] = [clock.now(), clock.now()];
    expect(other.getTime()).toBeGreaterThan(one.getTime());
    expect(one.toISOString()).toMatch(/^2026-11-22T10:00:00/);
  });

  it('names the term by the month', () => {
    expect(new StoryClock(new Date('2027-03-01T00:00:00Z')).term()).toBe('Spring 2027');
    expect(clock.term()).toBe('Autumn 2026');
  });
});
