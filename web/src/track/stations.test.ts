import { describe, expect, it } from '@jest/globals';
import type { Figures } from '@jigsaw/contract/track';
import { stationOf, stationsOf } from './stations.js';

const staff = { kind: 'staff', enrolled: 48, unplaced: 0, choosing: 0, live: 1, scheduled: 0, closed: 0, drafts: 1, rooms: 1, unread: 0, toMark: 0 } as const satisfies Figures; // prettier-ignore
const student = { kind: 'student', due: 1, rooms: 1, unread: 0, newMarks: 1 } as Figures;

describe('the track', () => {
  it.each([
    ['staff', 'copies/0193', 'Rooms'],
    ['staff', 'marks/0193/0194/group', 'Marks'],
    ['staff', 'outbox', 'People'],
    ['student', 'copies/0193', 'Room'],
    ['student', 'choose/0193', 'Room'],
    ['student', 'my-marks', 'Marks'],
  ] as const)('knows where %s are in %s', (kind, path, label) => {
    expect(stationOf(path, kind)?.label).toBe(label);
  });

  it('counts in words, one as one', () => {
    expect(stationsOf('staff', staff).map((station) => station.figure)).toEqual([
      '48 enrolled',
      '0 unplaced',
      '1 live · 1 draft',
      '1 room',
      'nothing to mark',
    ]);
    const figureOf = (label: string, more: object) =>
      stationsOf('staff', { ...staff, ...more }).find((station) => station.label === label)?.figure;
    expect(figureOf('Groups', { unplaced: 2, choosing: 9 })).toBe('2 unplaced');
    expect(figureOf('Groups', { choosing: 291 })).toBe('291 yet to choose');
    expect(figureOf('Release', { scheduled: 2 })).toBe('1 live · 2 scheduled · 1 draft');
    expect(figureOf('Release', { drafts: 0, closed: 3 })).toBe('1 live · 3 closed');
    expect(stationsOf('staff', staff, 4)[2]).toMatchObject({ figure: '4 to check', needs: true });
    expect(stationsOf('student', student).map((station) => station.figure)).toEqual([
      '1 to do',
      '1 group',
      '1 new mark',
    ]);
  });
});
