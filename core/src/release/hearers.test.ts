import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Role, Viewer } from '../course/index.js';
import type { CopyId, CourseId, EnrolmentId, GroupId, GroupSetId, ReleaseId } from '../ids/index.js';
import type { Audience, ConcernedCopies, Concerns, CopyFacts, ReleaseFacts } from './index.js';
import { atLeast, decide, hears } from './index.js';

const now = Date.parse('2026-11-10T10:00:00Z');
const benches = 'benches' as GroupSetId;
const [crock, carboy, onggi] = ['crock', 'carboy', 'onggi'] as [GroupId, GroupId, GroupId] & string[];
const viewer = (role: Role, groups: GroupId[] = [], more: Partial<Viewer> = {}): Viewer => ({
  courseId: 'course' as CourseId,
  enrolmentId: 'noor' as EnrolmentId,
  role,
  hasLeft: false,
  groups: groups.map((groupId) => ({ groupId, setId: benches })),
  leads: [],
  seesOnlyLed: false,
  ...more,
});
const noor = viewer('student', [crock]);
const release = (more: Partial<ReleaseFacts> = {}): ReleaseFacts => ({
  courseId: 'course' as CourseId,
  state: { state: 'live', since: now - 1 },
  mode: 'own',
  audience: { include: [{ kind: 'set', setId: benches }], exclude: [] },
  outsiders: 'hidden',
  schedule: { opens: null, due: null, closes: null },
  ownTime: new Map(),
  ...more,
});
const copy = (groupId: GroupId | null): CopyFacts => ({ groupId, setId: benches, extension: null });
const nothing: Concerns = {
  groupIds: [],
  setIds: [],
  enrolmentIds: [],
  isForAll: false,
  staff: null,
  staffOf: null,
  copies: null,
};
const inCopies = (more: Partial<ConcernedCopies> = {}): Concerns => ({
  ...nothing,
  copies: {
    releaseId: 'release' as ReleaseId,
    copyIds: ['copy' as CopyId],
    ownerId: null,
    isForStaffOnly: false,
    wasOut: false,
    ...more,
  },
});
const whole = { copyIds: null };

describe('who hears that something changed', () => {
  it.each<[string, Viewer, Partial<Concerns>, boolean]>([
    ['a member of a group that is named', noor, { groupIds: [crock] }, true],
    ['no one of another group', noor, { groupIds: [carboy] }, false],
    ['whoever is in any group of a set', noor, { setIds: [benches] }, true],
    ['who is named', noor, { enrolmentIds: [noor.enrolmentId] }, true],
    ['everyone', viewer('student'), { isForAll: true }, true],
    ['no one who has left', { ...noor, hasLeft: true }, { isForAll: true, groupIds: [crock] }, false],
    ['staff who may do it', viewer('assistant'), { staff: 'mark' }, true],
    ['no staff who may not', viewer('observer'), { staff: 'mark' }, false],
    ['no student where staff are meant', noor, { staff: 'read-course' }, false],
    [
      'no staff of other groups, where it is one group’s',
      { ...viewer('assistant'), seesOnlyLed: true },
      { staff: 'mark', staffOf: crock },
      false,
    ],
    [
      'staff who lead that group',
      { ...viewer('assistant'), seesOnlyLed: true, leads: [crock] },
      { staff: 'mark', staffOf: crock },
      true,
    ],
    ['no staff where students are named', viewer('instructor'), { groupIds: [crock] }, false],
  ])('is %s', (_who, who, concerns, isTold) =>
    expect(hears(who, { ...nothing, ...concerns }, null, now)).toBe(isTold),
  );

  it.each<[string, Viewer, Partial<ConcernedCopies>, Partial<ReleaseFacts>, GroupId | null, boolean]>([
    ['the group whose copy it is', noor, {}, {}, crock, true],
    ['not another group', noor, {}, {}, carboy, false],
    ['another group that reads along', noor, {}, { mode: 'read-along' }, carboy, true],
    ['no one outside who may only know of it', viewer('student'), {}, { outsiders: 'listed' }, crock, false],
    ['whoever may know of it, when it comes or goes', viewer('student'), whole, { outsiders: 'listed' }, crock, true],
    ['not teammates of the owner', noor, { ownerId: 'jorge' as EnrolmentId }, {}, crock, false],
    ['the owner', noor, { ownerId: noor.enrolmentId }, {}, crock, true],
    ['not who is left out by name', noor, {}, { audience: { include: release().audience.include, exclude: [noor.enrolmentId] } }, crock, false],
    ['not students, of what is scheduled', noor, whole, { state: { state: 'scheduled', goesLiveAt: now + 1 } }, crock, false],
    ['not students, of what was never with them and is withdrawn', noor, whole, { state: { state: 'withdrawn', since: now } }, crock, false],
    ['who had it until it was withdrawn', noor, { ...whole, wasOut: true }, { state: { state: 'withdrawn', since: now } }, crock, true],
    ['not students, of what is for staff', noor, { isForStaffOnly: true }, {}, crock, false],
    ['staff, of what is for staff', viewer('instructor'), { isForStaffOnly: true }, {}, crock, true],
    ['an assistant who looks after the group', viewer('assistant', [], { seesOnlyLed: true, leads: [crock] }), {}, {}, crock, true],
    ['not an assistant of other groups only', viewer('assistant', [], { seesOnlyLed: true, leads: [carboy] }), {}, {}, crock, false],
  ])('of a copy is %s', (_who, who, concerned, facts, groupId, isTold) =>
    expect(hears(who, inCopies(concerned), { release: release(facts), copies: [copy(groupId)] }, now)).toBe(isTold),
  ); // prettier-ignore

  it('is no one where the release is gone by now', () =>
    expect(hears(noor, inCopies(), null, now)).toBe(false));

  it('is whoever the decision lets read any of the copies, for any mixture of copies, audience and mode', () => {
    const groups = [crock, carboy, onggi];
    const entry = fc.oneof(
      fc.constant({ kind: 'set' as const, setId: benches }),
      fc.constant({ kind: 'class' as const }),
      fc.constantFrom(...groups).map((groupId) => ({ kind: 'group' as const, setId: benches, groupId })),
    );
    fc.assert(
      fc.property(
        fc.record({
          include: fc.array(entry, { maxLength: 3 }),
          exclude: fc.constantFrom<EnrolmentId[]>([], [noor.enrolmentId]),
        }),
        fc.constantFrom<ReleaseFacts['mode']>('own', 'read-along', 'common'),
        fc.subarray(groups),
        fc.array(fc.constantFrom(...groups, null), { maxLength: 5 }),
        fc.constantFrom<Role>('student', 'assistant', 'observer', 'instructor'),
        fc.boolean(),
        (audience: Audience, mode, own, of, role, isWhole) => {
          const facts = release({ audience, mode, outsiders: 'listed' });
          const who = viewer(role, own, { seesOnlyLed: true, leads: own });
          const copies = of.map(copy);
          const needed = isWhole ? 'listed' : 'read-only';
          expect(hears(who, inCopies(isWhole ? whole : {}), { release: facts, copies }, now)).toBe(
            copies.some((each) => atLeast(decide(who, facts, each, now).access, needed)),
          );
        },
      ),
    );
  });
});
