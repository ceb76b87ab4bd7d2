import { describe, expect, it } from '@jest/globals';
import type { DealRule } from '@jigsaw/contract/sets';
import { id } from '../test/data.js';
import { carboy, crock, given, labs, person } from '../test/aDeal.js';
import { movesOf, problemOf, seatsOf } from './dealProblem.js';
import { sayRule } from './ruleKinds.js';

describe('what the engine is asked', () => {
  it('keeps pins, locked groups, and whoever is not dealt anew where they are', () => {
    const { board, roster } = given([], { Ada: 'Crock', Ben: 'Carboy', Cho: null, Dia: null });
    const locked = {
      ...board,
      groups: board.groups.map((group) => ({ ...group, isLocked: group.id === crock })),
    };
    const fixed = (who: 'unplaced' | 'all', pins = new Map([[person('Dia'), carboy]])) =>
      problemOf({
        board: locked,
        roster,
        rules: [{ kind: 'fresh', setIds: [labs.id] }],
        who,
        pins,
        seed: 1,
      }).students.map((student) => student.fixedIn);
    expect(fixed('all')).toEqual([crock, null, null, carboy]);
    expect(fixed('unplaced', new Map())).toEqual([crock, carboy, null, null]);
    const { rules } = problemOf({
      board,
      roster,
      rules: [{ kind: 'fresh', setIds: [labs.id] }],
      who: 'all',
      pins: new Map(),
      seed: 1,
    });
    expect(rules).toEqual([
      { kind: 'fresh', sets: [{ name: 'Labs', groups: [[person('Ada'), person('Cho')]] }] },
    ]);
  });

  it('becomes moves from how the Board is, and takes no leading along', () => {
    const { board } = given([], { Ada: 'Crock', Ben: 'Carboy', Cho: null, Dia: null });
    const led = {
      ...board,
      students: board.students.map((student) => ({
        ...student,
        seats: student.seats.map((seat) => ({ ...seat, isLeader: true })),
      })),
    };
    const seats = new Map([
      [person('Ada'), carboy],
      [person('Ben'), carboy],
      [person('Cho'), null],
      [person('Dia'), crock],
    ]);
    expect(movesOf(led, seats)).toEqual([
      { student: person('Ada'), from: crock, to: carboy, leads: { from: true, to: false } },
      { student: person('Dia'), from: null, to: crock },
    ]);
  });

  it('leaves whoever came since it was made where they are, and sends no one to a group that is gone', () => {
    const { board } = given([], { Ada: 'Crock', Ben: 'Carboy', Cho: null, Dia: 'Crock' });
    const kept = {
      number: 1,
      madeAt: '',
      seed: 1,
      who: 'all' as const,
      isStopped: false,
      seats: [[person('Ada'), id<'group'>('gone')] as const, [person('Ben'), crock] as const],
    };
    expect(movesOf(board, seatsOf(board, kept))).toEqual([
      { student: person('Ben'), from: carboy, to: crock },
    ]);
  });

  it('is read as sentences', () => {
    const { board, roster } = given();
    const says = (rule: DealRule) => sayRule(rule, board, roster);
    expect(says({ kind: 'together', students: [person('Ada'), person('Ben')] })).toBe(
      'Keep Ada, Ben together',
    );
    expect(says({ kind: 'fresh', setIds: [labs.id] })).toBe('Not with teammates of Labs');
    expect(says({ kind: 'common-time', attribute: 'Free', wanted: 2 })).toBe(
      'At least 2 half-days of Free in common',
    );
    expect([
      says({ kind: 'spread', attribute: 'Lab', as: 'category' }),
      says({ kind: 'alike', attribute: 'Lab', as: 'category' }),
      says({ kind: 'nobody-alone', attribute: 'Lab' }),
    ]).toEqual(['Spread Lab evenly', 'Alike in Lab', 'No one alone by Lab']);
  });
});
