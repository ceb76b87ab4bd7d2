import { describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aBoard, id } from '../test/data.js';
import { membersOf, seatingOf } from './seating.js';

const [crock, carboy, tun] = [id<'group'>('Crock'), id<'group'>('Carboy'), id<'group'>('Tun')];

describe('who sits where', () => {
  it('keeps the lists that did not change, and knows of groups that are new', () => {
    const board = aBoard({ Ada: 'Crock', Ben: 'Carboy', Cho: null });
    const before = seatingOf(board);
    const students = board.students.map((student) =>
      student.name === 'Cho'
        ? { ...student, seats: [{ groupId: carboy, isLeader: false, handIns: 0 }] }
        : student,
    );
    const groups = [...board.groups, { ...sure(board.groups[0]), id: tun, number: 3 }];
    const after = seatingOf({ students, groups }, before);
    expect(after.get(crock)).toBe(before.get(crock));
    expect(sure(after.get(carboy)).map((student) => student.name)).toEqual(['Ben', 'Cho']);
    expect([after.get(tun), after.get(null)]).toEqual([[], []]);
  });

  it('lists someone in each of their groups', () => {
    const board = aBoard({ Ada: 'Crock' });
    const seats = [crock, carboy].map((groupId) => ({ groupId, isLeader: false, handIns: 0 }));
    const several = { ...board, students: board.students.map((student) => ({ ...student, seats })) };
    for (const groupId of [crock, carboy])
      expect(membersOf(several, groupId).map((student) => student.name)).toEqual(['Ada']);
    expect(membersOf(several, null)).toEqual([]);
  });
});
