import { describe, expect, it } from '@jest/globals';
import type { Role, Viewer } from '../course/index.js';
import type { EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { fillIn, placeholdersIn, readsThread } from './index.js';

const noor = { names: ['Noor Haddad'], groups: ['Crock'] };

describe('what stands for something else in a message', () => {
  it('gives way to what is each reader’s own, however often and in whatever case it is typed', () => {
    expect(fillIn('{First name}, {name} of {group}: {group}!', noor)).toBe(
      'Noor, Noor Haddad of Crock: Crock!',
    );
  });

  it('names all of a group, and says “your group” to those in none', () => {
    const group = { names: ['Noor Haddad', 'Jorge Paz', '황서연'], groups: ['Crock'] };
    expect(fillIn('Dear {first name}', group)).toBe('Dear Noor, Jorge and 황서연');
    expect(fillIn('About {group}', { names: ['Nino'], groups: [] })).toBe('About your group');
    expect(fillIn('In {group}', { names: ['Nino'], groups: ['Crock', 'Panel 2'] })).toBe(
      'In Crock and Panel 2',
    );
  });

  it('leaves all else as it was typed, and fills in nothing twice', () => {
    expect(fillIn('{ph} $& {nam} {}', noor)).toBe('{ph} $& {nam} {}');
    expect(fillIn('{name}', { names: ['{group}'], groups: ['Crock'] })).toBe('{group}');
    expect(fillIn('{name}', { names: ['$& $1'], groups: [] })).toBe('$& $1');
  });

  it('is found', () => {
    expect(placeholdersIn('{GROUP} and {first name}')).toEqual(['{first name}', '{group}']);
    expect(placeholdersIn('{ph}')).toEqual([]);
  });
});

const crock = 'crock' as GroupId;
const carboy = 'carboy' as GroupId;
const viewer = (name: string, role: Role, more: Partial<Viewer> = {}): Viewer => ({
  courseId: 'course' as Viewer['courseId'],
  enrolmentId: name as EnrolmentId,
  role,
  hasLeft: false,
  seesOnlyLed: false,
  leads: [],
  groups: [],
  ...more,
});
const inGroup = (groupId: GroupId) => [{ groupId, setId: 'set' as GroupSetId }];
const people = [
  viewer('ilse', 'instructor'),
  viewer('tomas', 'assistant', { leads: [crock] }),
  viewer('bea', 'assistant'),
  viewer('lena', 'assistant', { leads: [carboy], seesOnlyLed: true }),
  viewer('olga', 'observer'),
  viewer('noor', 'student', { groups: inGroup(crock) }),
  viewer('amina', 'student', { groups: inGroup(carboy) }),
  viewer('kofi', 'student', { groups: inGroup(crock), hasLeft: true }),
];
const by = (name: string) => name as EnrolmentId;
const readers = (thread: Parameters<typeof readsThread>[1]) =>
  people.flatMap((each) => (readsThread(each, thread) ? [each.enrolmentId as string] : []));

describe('a thread of messages', () => {
  it('with a student is theirs, the instructors’, and of those assistants who lead a group of theirs or began it', () => {
    const withNoor = { withId: by('noor'), isWithStudent: true, theirGroups: [crock] };
    expect(readers({ ...withNoor, startedBy: by('noor') })).toEqual(['ilse', 'tomas', 'noor']);
    expect(readers({ ...withNoor, startedBy: by('bea') })).toEqual(['ilse', 'tomas', 'bea', 'noor']);
  });

  it('with someone of the staff is between the two', () => {
    const withOlga = { withId: by('olga'), isWithStudent: false, theirGroups: [] };
    expect(readers({ ...withOlga, startedBy: by('tomas') })).toEqual(['tomas', 'olga']);
  });

  it('with a group is its members’ and all staff’s who see its work and write to people', () => {
    expect(readers({ withId: null, groupId: crock, startedBy: by('noor') })).toEqual([
      'ilse',
      'tomas',
      'bea',
      'noor',
    ]);
    expect(readers({ withId: null, groupId: carboy, startedBy: by('noor') })).toEqual([
      'ilse',
      'tomas',
      'bea',
      'lena',
      'amina',
    ]);
  });

  it('is no one’s who has left, be it with them', () => {
    expect(
      readers({ withId: by('kofi'), isWithStudent: true, theirGroups: [], startedBy: by('kofi') }),
    ).toEqual(['ilse']);
  });
});
