import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aBoard, anEntry, id } from './data.js';

/** A set of two groups whose four students are dealt in tests. */
export const setId = id<'group-set'>('benches');
export const [crock, carboy] = [id<'group'>('Crock'), id<'group'>('Carboy')];
export const person = (name: string) => id<'enrolment'>(name);
export const labs = {
  id: id<'group-set'>('labs'),
  name: 'Labs',
  isExclusive: true,
  groups: [{ id: id<'group'>('tue'), number: 1, name: 'Tue' }],
};
/** Ada and Ben have plenty of experience, Cho and Dia none; Ada and Cho were in one lab. */
export function given(
  rules: DealRule[] = [],
  seats: Parameters<typeof aBoard>[0] = { Ada: null, Ben: null, Cho: null, Dia: null },
) {
  const plain = aBoard(seats);
  const board: BoardView = {
    ...plain,
    rules,
    attributes: [{ name: 'Lab', kind: 'category', isChosen: false }],
    students: plain.students.map((student, at) => ({
      ...student,
      attributes: { Lab: at < 2 ? 'plenty' : 'none' },
    })),
  };
  const entries = board.students.map((student) =>
    anEntry(student.name, {
      groups: ['Ada', 'Cho'].includes(student.name)
        ? [{ setId: labs.id, groupId: sure(labs.groups[0]).id, number: 1, name: 'Tue' }]
        : [],
    }),
  );
  const roster: RosterView = {
    entries: entries.map((entry) => ({ ...entry, enrolmentId: person(entry.name) })),
    sets: [labs],
    attributes: [],
    syncedAt: null,
  };
  return { board, roster };
}
