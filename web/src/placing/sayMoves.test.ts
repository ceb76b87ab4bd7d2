import { describe, expect, it } from '@jest/globals';
import type { MovesAct } from '@jigsaw/contract/placing';
import { id } from '../test/data.js';
import { sayAct } from './sayMoves.js';

const [crock, tun] = [
  { number: 1, name: 'Crock' },
  { number: 2, name: 'Tun' },
];
type Group = NonNullable<typeof crock>;
const move = (name: string, from: Group | undefined | null, to: Group | undefined | null) => ({
  enrolmentId: id<'enrolment'>(name),
  name,
  from: from ? [from] : [],
  to: to ? [to] : [],
});
const act = (moves: MovesAct['moves'], more: Partial<MovesAct> = {}): MovesAct => ({
  at: '2026-11-02T10:00:00.000Z',
  by: 'Ilse Marrow',
  isYours: false,
  isOwnChoice: false,
  count: moves.length,
  placed: moves.filter((each) => each.from.length === 0).length,
  removed: moves.filter((each) => each.to.length === 0).length,
  why: null,
  moves,
  ...more,
});

describe('an act on a set', () => {
  it.each([
    [act([move('Ada', null, tun)]), 'Ilse Marrow placed Ada in Tun'],
    [act([move('Ada', crock, tun)], { isYours: true }), 'You moved Ada from Crock to Tun'],
    [act([move('Ada', crock, null)]), 'Ilse Marrow removed Ada from Crock'],
    [act([move('Ada (n7)', null, tun)], { by: 'Ada', isOwnChoice: true }), 'Ada (n7) chose Tun'],
    [act([move('Ada', crock, tun)], { isOwnChoice: true }), 'Ada changed from Crock to Tun'],
    [act([move('Ada', crock, null)], { isOwnChoice: true }), 'Ada left Crock'],
    [act([move('Ada', crock, tun)], { by: 'Ada' }), 'Ada moved Ada from Crock to Tun'],
    [act([move('Ada', null, tun), move('Ben', null, tun)]), 'Ilse Marrow placed 2 students in Tun'],
    [act([move('Ada', crock, tun), move('Ben', crock, tun)]), 'Ilse Marrow moved 2 students to Tun'],
    [
      act([move('Ada', crock, null), move('Ben', tun, null)]),
      'Ilse Marrow removed 2 students from their groups',
    ],
    [act([move('Ada', crock, tun), move('Ben', tun, crock)]), 'Ilse Marrow moved 2 students'],
    [act([move('Ada', null, tun)], { count: 48 }), 'Ilse Marrow moved 48 students'],
    [act([move('Ada', null, tun)], { count: 48, placed: 48 }), 'Ilse Marrow placed 48 students'],
    [act([move('Ada', null, tun), move('Ben', crock, tun)]), 'Ilse Marrow moved 2 students to Tun'],
  ])('is said in a sentence', (given, words) => expect(sayAct(given)).toBe(words));
});
