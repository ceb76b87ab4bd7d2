import { describe, expect, it } from '@jest/globals';
import { kindOfAct, kindsOfActs, placesOf, sayAct, typesOfKind } from './index.js';

const nowhere = { activityId: null, copyId: null, groupId: null, setId: null };
const types = kindsOfActs.flatMap(typesOfKind);

describe('what someone did', () => {
  it('is said for every act, with and without what it holds, and each belongs to one part', () => {
    expect(new Set(types).size).toBe(types.length);
    for (const type of types) {
      expect(sayAct(type, {})).toMatch(/^[a-z][^{}]+$/);
      expect(sayAct(type, {})).not.toMatch(/undefined|NaN|null|not told/);
      expect(placesOf(type, nowhere)?.path ?? '').toMatch(/^[a-z/-]*$/);
    }
  });

  it('says what it held', () => {
    expect(sayAct('set.changed', { isFrozen: true })).toBe('froze the set');
    expect(sayAct('set.changed', { isFrozen: false })).toBe('unfroze the set');
    expect(sayAct('set.changed', { isArchived: false })).toBe('restored the set');
    expect(sayAct('set.changed', { version: 3 })).toBe('edited the set');
    expect(sayAct('set.created', { groups: 12 })).toBe('created a set of 12 groups');
    expect(sayAct('set.created', { expertsOf: 'x', tables: 1 })).toBe('derived 1 expert table');
    expect(sayAct('group.edited', { added: 2, removed: 1, changed: 0 })).toBe(
      'added 2 groups, removed 1 group',
    );
    expect(sayAct('students.placed', { moves: [{ student: 'a' }, { student: 'b' }, { student: 'a' }] })).toBe('placed 2 students'); // prettier-ignore
    expect(sayAct('activity.released', { groups: 12, state: { state: 'scheduled' } })).toBe('scheduled the release to 12 groups'); // prettier-ignore
    expect(sayAct('activity.released', { isAgain: true })).toBe('released it again');
    expect(sayAct('mark.released', { students: 4 })).toBe('released a mark to 4 students');
    expect(sayAct('mark.recalled', {})).toBe('recalled a mark');
    expect(sayAct('message.sent', { to: 48 })).toBe('sent a message to 48 at once');
    expect(sayAct('post.added', { words: 1 })).toBe('wrote a post of 1 word');
  });

  it('of a type that no one knows is of no part, whatever the type is called', () => {
    for (const type of ['constructor', '__proto__', 'toString', 'told.to.all', ''])
      expect([kindOfAct(type), placesOf(type, nowhere)]).toEqual([null, null]);
  });

  it('leads to where it is seen', () => {
    expect(placesOf('post.added', { ...nowhere, copyId: 'c', groupId: 'g' })?.path).toBe('copies/c');
    expect(placesOf('shelf-file.added', { ...nowhere, groupId: 'g' })?.path).toBe('room/g');
    expect(placesOf('activity.withdrawn', { ...nowhere, activityId: 'a' })?.path).toBe('release/a');
    expect(placesOf('students.placed', { ...nowhere, setId: 's' })?.path).toBe('groups/s');
    expect(placesOf('note.written', { ...nowhere, groupId: 'g' })?.path).toBe('room/g');
  });
});
