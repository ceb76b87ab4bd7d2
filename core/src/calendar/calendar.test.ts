import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import ICAL from 'ical.js';
import type { GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { offsetAt } from '../release/index.js';
import { entriesOf, eventFacts, eventFor, happeningOf, inTurn, movedEvent, zoneBlock } from './index.js';
import type { Dated } from './index.js';

const times = { starts: '2026-11-12T10:00:00.000Z', ends: '2026-11-12T12:00:00.000Z', place: 'Lab 2', isCancelled: false }; // prettier-ignore
const chosen = { ...times, own: [] };
const [crock, tun] = ['crock' as GroupId, 'tun' as GroupId];
const ofCrock = { groupId: crock, starts: '2026-11-13T10:00:00.000Z', ends: '2026-11-13T10:20:00.000Z', place: '', isCancelled: false }; // prettier-ignore
const aThing = (more: Partial<Dated> = {}): Dated => ({
  copyId: 'copy-1',
  releaseId: 'release-1',
  title: 'Tasting day',
  course: 'FER 220',
  timeZone: 'Europe/Lisbon',
  groupName: 'Crock',
  description: 'Bring a spoon.',
  url: 'http://localhost/c',
  due: null,
  happens: times,
  isOwnTime: false,
  version: 3,
  changedAt: 0,
  ...more,
});

describe('an event', () => {
  it('can be released once both its times are chosen', () => {
    expect(eventFacts.notReady?.({ ...chosen, starts: null })).toBe('Choose when it starts.');
    expect(eventFacts.notReady?.({ ...chosen, ends: null })).toBe('Choose when it ends.');
    expect(eventFacts.notReady?.(chosen)).toBeNull();
    expect(happeningOf({ ...chosen, ends: null })).toBeNull();
    expect(happeningOf(chosen)).toEqual(times);
  });

  it('moves both its times and nothing else; a time that is not chosen stays so', () => {
    const later = (at: string) => at.replace('11-12', '11-19');
    expect(movedEvent({ ...chosen, ends: null }, later)).toEqual({ ...chosen, starts: '2026-11-19T10:00:00.000Z', ends: null }); // prettier-ignore
    const own = [{ ...ofCrock, starts: times.starts, ends: times.ends }];
    expect(movedEvent({ ...chosen, own }, later).own).toEqual([{ ...ofCrock, starts: '2026-11-19T10:00:00.000Z', ends: '2026-11-19T12:00:00.000Z' }]); // prettier-ignore
  });

  it('is for a group when it is for all, unless it has a time of its own; another group’s is not in it', () => {
    const settings = { ...chosen, own: [ofCrock] };
    const { groupId: _crock, ...time } = ofCrock;
    expect(eventFor(settings, crock)).toEqual({ ...time, place: 'Lab 2', own: [] });
    for (const other of [tun, null]) expect(eventFor(settings, other)).toEqual(chosen);
    expect(eventFor({ ...settings, own: [{ ...ofCrock, place: 'Cellar' }] }, crock).place).toBe('Cellar');
    const cancelled = [{ settings: { ...settings, isCancelled: true }, both: true }, { settings: { ...settings, own: [{ ...ofCrock, isCancelled: true }] }, both: false }]; // prettier-ignore
    for (const { settings: each, both } of cancelled)
      expect([crock, tun].map((group) => eventFor(each, group).isCancelled)).toEqual([true, both]);
  });

  it('is for one group after another, each as long, with a pause between', () => {
    const own = inTurn([tun, crock], { first: times.starts, lasts: 20, pause: 5 });
    expect(
      own.map(({ groupId, starts, ends }) => [groupId, starts.slice(11, 16), ends.slice(11, 16)]),
    ).toEqual([
      [tun, '10:00', '10:20'],
      [crock, '10:25', '10:45'],
    ]);
  });
});

describe('what stands in a calendar', () => {
  it('is named after the course and, for members, after their group', () => {
    expect(entriesOf([aThing()], 'member').map((entry) => entry.summary)).toEqual(['Tasting day (FER 220, Crock)']); // prettier-ignore
    expect(entriesOf([aThing({ groupName: null })], 'member')[0]?.summary).toBe('Tasting day (FER 220)');
  });

  it('is one line a release for staff, and one a copy for members', () => {
    const two = [aThing(), aThing({ copyId: 'copy-2', groupName: 'Carboy' })];
    expect(entriesOf(two, 'staff').map(({ uid, summary }) => ({ uid, summary }))).toEqual([
      { uid: 'release-1.event@jigsaw-room', summary: 'Tasting day (FER 220)' },
    ]);
    expect(new Set(entriesOf(two, 'member').map((entry) => entry.uid)).size).toBe(2);
  });

  it('is a line more for staff for each group that has a time of its own, named after it', () => {
    const two = [aThing({ isOwnTime: true }), aThing({ copyId: 'copy-2', groupName: 'Carboy' }), aThing({ copyId: 'copy-3', groupName: 'Tun' })]; // prettier-ignore
    expect(entriesOf(two, 'staff').map(({ uid, summary }) => [uid, summary])).toEqual([
      ['copy-1.event@jigsaw-room', 'Tasting day (FER 220, Crock)'],
      ['release-1.event@jigsaw-room', 'Tasting day (FER 220)'],
    ]);
  });

  it('holds due times as moments, in the order of time, and says what is cancelled', () => {
    const due = Date.parse('2026-11-10T17:00:00.000Z');
    const entries = entriesOf([aThing({ due, happens: { ...times, isCancelled: true } })], 'member');
    expect(entries.map(({ summary, ends, isCancelled }) => ({ summary, ends, isCancelled }))).toEqual([
      { summary: 'Due: Tasting day (FER 220, Crock)', ends: null, isCancelled: false },
      { summary: 'Cancelled: Tasting day (FER 220, Crock)', ends: Date.parse(times.ends), isCancelled: true },
    ]);
  });
});

describe('a time zone in a calendar file', () => {
  const from = Date.parse('2025-12-01T00:00:00Z');
  const to = Date.parse('2027-12-01T00:00:00Z');

  it('tells every moment as the zone itself does, read by another parser', () => {
    const zones = ['Europe/Lisbon', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata', 'UTC', 'America/Santiago']; // prettier-ignore
    const readers = new Map(
      zones.map((zone) => [
        zone,
        new ICAL.Timezone(new ICAL.Component(ICAL.parse(`BEGIN:VCALENDAR\r\n${zoneBlock(zone, [from, (from + to) / 2, to])}END:VCALENDAR\r\n`) as never[]).getFirstSubcomponent('vtimezone') as never), // prettier-ignore
      ]),
    );
    const hour = 3_600_000;
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: from + 24 * hour, max: to - 24 * hour }),
        (zone, at) => {
          const shown = new Date(at + offsetAt(at, zone));
          // The hour that clocks show twice, or skip, belongs to no one moment.
          fc.pre(offsetAt(at - 2 * hour, zone) === offsetAt(at + 2 * hour, zone));
          const local = ICAL.Time.fromData({ year: shown.getUTCFullYear(), month: shown.getUTCMonth() + 1, day: shown.getUTCDate(), hour: shown.getUTCHours(), minute: shown.getUTCMinutes(), second: shown.getUTCSeconds() }); // prettier-ignore
          expect(sure(readers.get(zone)).utcOffset(local) * 1000).toBe(offsetAt(at, zone));
        },
      ),
      { numRuns: 300 },
    );
  });
});
