import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { coverage, cutAgain, rebalanced, topicLetter } from './index.js';
import type { ExpertSeats, SeatedExperts } from './index.js';

const person = (home: number, at: number) => `${home}.${at}` as EnrolmentId;
const table = (topic: number, at: number) => `${topic}/${at}` as GroupId;

interface Room {
  readonly sizes: readonly number[];
  /** How many tables each topic has. */
  readonly tables: readonly number[];
  readonly places: readonly number[];
  readonly most?: number;
  readonly locked?: readonly number[];
}

/** Everyone sits where `places` says, counted through the tables; a number beyond them: nowhere. */
function roomOf({ sizes, tables, places, most, locked = [] }: Room): SeatedExperts {
  const homes = sizes.map((size, home) => Array.from({ length: size }, (_, at) => person(home, at)));
  const all = tables
    .flatMap((count, topic) =>
      Array.from({ length: count }, (_, at) => ({ id: table(topic, at), topic, most: most ?? null })),
    )
    .map((each, at) => ({ ...each, isLocked: locked.includes(at) }));
  const seats = new Map(
    homes.flat().flatMap((who, at): [EnrolmentId, GroupId][] => {
      const seat = all[places[at % Math.max(1, places.length)] ?? all.length];
      return seat ? [[who, seat.id]] : [];
    }),
  );
  return { homes, topics: tables.length, tables: all, seats };
}

const aRoom = fc.record({
  sizes: fc.array(fc.nat(6), { minLength: 1, maxLength: 8 }),
  tables: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 4 }),
  places: fc.array(fc.nat(12), { maxLength: 40 }),
});
const differ = (counts: readonly number[]) => Math.max(0, ...counts) - Math.min(...counts);
const topicOf = (seat: GroupId) => Number(seat.split('/')[0]);
const sizesOf = (room: SeatedExperts, seats: ExpertSeats, topic: number) =>
  room.tables
    .filter((each) => each.topic === topic)
    .map((each) => [...seats.values()].filter((seat) => seat === each.id).length);
const movedIn = (room: SeatedExperts, seats: ExpertSeats) =>
  [...seats].filter(([who, seat]) => room.seats.get(who) !== seat).length;

function expectEven(room: SeatedExperts, seats: ExpertSeats) {
  expect([...seats.keys()].sort()).toEqual(room.homes.flat().sort());
  for (const home of room.homes) {
    const counts = Array.from({ length: room.topics }, (_, topic) =>
      home.filter((who) => topicOf(sure(seats.get(who))) === topic),
    );
    expect(differ(counts.map((each) => each.length))).toBeLessThanOrEqual(1);
    for (const [topic, own] of counts.entries()) {
      const tables = room.tables.filter((each) => each.topic === topic);
      const atEach = tables.map((each) => own.filter((who) => seats.get(who) === each.id).length);
      expect(differ(atEach)).toBeLessThanOrEqual(1);
    }
  }
  const totals = Array.from({ length: room.topics }, (_, topic) => sizesOf(room, seats, topic));
  expect(differ(totals.map((sizes) => sizes.reduce((sum, size) => sum + size, 0)))).toBeLessThanOrEqual(1);
  for (const sizes of totals) expect(differ(sizes)).toBeLessThanOrEqual(1);
}

describe('expert tables that are evened out', () => {
  it('give every home every topic as evenly as can be, from any seats, and are then left alone', () =>
    fc.assert(
      fc.property(aRoom, (given) => {
        const room = roomOf(given);
        const seats = rebalanced(room);
        expectEven(room, seats);
        expect(movedIn({ ...room, seats }, rebalanced({ ...room, seats }))).toBe(0);
      }),
    ));

  it('move as few people as any even seats of a small class would', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 3 }),
        fc.array(fc.nat(3), { minLength: 1, maxLength: 9 }),
        (sizes, places) => {
          const room = roomOf({ sizes, tables: [1, 1, 1], places });
          expect(movedIn(room, rebalanced(room))).toBe(fewestMoves(room));
        },
      ),
      { numRuns: 60 },
    ));

  it('close the gap that someone leaves by one move where one will do', () => {
    const whole = roomOf({ sizes: [4, 4, 3], tables: [1, 1, 1], places: [] });
    const seats = new Map(rebalanced(whole));
    const gone = sure([...seats.keys()].find((who) => who.startsWith('0.') && atMostOne(whole, seats, who)));
    seats.delete(gone);
    const left = { ...whole, homes: whole.homes.map((home) => home.filter((who) => who !== gone)), seats };
    expect(sure(coverage(left)[0]).lacking).toHaveLength(1);
    const mended = rebalanced(left);
    expect(movedIn(left, mended)).toBeLessThanOrEqual(2);
    expect(sure(coverage({ ...left, seats: mended })[0]).lacking).toEqual([]);
  });

  it('leave those at locked tables, and fill no table above its places', () => {
    const room = roomOf({
      sizes: [3, 3, 3],
      tables: [1, 1, 1],
      places: [0, 0, 0, 1, 1, 1, 9, 9, 9],
      locked: [0],
    });
    const seats = rebalanced(room);
    for (const [who, seat] of room.seats) if (seat === table(0, 0)) expect(seats.get(who)).toBe(seat);
    expect([...seats.values()].filter((seat) => seat === table(0, 0))).toHaveLength(3);
    const narrow = roomOf({ sizes: [4, 4], tables: [1, 1], places: [9], most: 3 });
    const filled = rebalanced(narrow);
    expect(sizesOf(narrow, filled, 0)).toEqual([3]);
    expect(filled.size).toBe(6);
  });
});

/** Whether someone is the only one of their home at their topic. */
const atMostOne = (room: SeatedExperts, seats: ExpertSeats, who: EnrolmentId) =>
  sure(coverage({ ...room, seats })[0]).at[topicOf(sure(seats.get(who)))]?.length === 1;

/** By trying all seats. */
function fewestMoves(room: SeatedExperts): number {
  const people = room.homes.flat();
  let fewest = Infinity;
  let best = [Infinity, Infinity];
  const seats = new Map<EnrolmentId, GroupId>();
  const squares = (counts: readonly number[]) => counts.reduce((sum, count) => sum + count * count, 0);
  const seatRest = (at: number) => {
    const who = people[at];
    if (who !== undefined) {
      for (const each of room.tables) {
        seats.set(who, each.id);
        seatRest(at + 1);
      }
      return;
    }
    const ofHomes = coverage({ ...room, seats }).flatMap((home) => home.at.map((tables) => tables.length));
    const worth = [
      squares(ofHomes),
      squares(room.tables.flatMap((each) => sizesOf(room, seats, each.topic))),
    ];
    const by = sure(worth[0]) - sure(best[0]) || sure(worth[1]) - sure(best[1]);
    if (by > 0) return;
    if (by < 0) [best, fewest] = [worth, Infinity];
    fewest = Math.min(fewest, movedIn(room, seats));
  };
  seatRest(0);
  return fewest;
}

describe('expert tables that are cut again', () => {
  it('are even, by chance, and the same for the same seed', () =>
    fc.assert(
      fc.property(aRoom, fc.nat(500), (given, seed) => {
        const room = roomOf(given);
        const seats = cutAgain(room, seed);
        expectEven(room, seats);
        expect(cutAgain(room, seed)).toEqual(seats);
      }),
    ));

  it('are left alone by evening out, whatever even seats they are', () =>
    fc.assert(
      fc.property(aRoom, fc.nat(500), (given, seed) => {
        const room = roomOf(given);
        const cut = { ...room, seats: cutAgain(room, seed) };
        expect(movedIn(cut, rebalanced(cut))).toBe(0);
      }),
    ));

  it('seat people with others', () => {
    const room = roomOf({ sizes: Array<number>(8).fill(4), tables: [2, 2, 2, 2], places: [] });
    const cuts = [1, 2, 3, 4].map((seed) => JSON.stringify([...cutAgain(room, seed)].sort()));
    expect(new Set(cuts).size).toBe(4);
  });
});

describe('what homes learn', () => {
  it('names gaps, and whether the home is too small for all', () => {
    const room = roomOf({ sizes: [3, 2], tables: [1, 1, 1], places: [0, 0, 1, 2, 9] });
    expect(coverage(room)).toEqual([
      { at: [[table(0, 0), table(0, 0)], [table(1, 0)], []], lacking: [2], isSmall: false },
      { at: [[], [], [table(2, 0)]], lacking: [0, 1], isSmall: true },
    ]);
  });

  it('letters its topics', () =>
    expect([0, 3, 25, 26, 39].map(topicLetter)).toEqual(['A', 'D', 'Z', 'AA', 'AN']));
});
