import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { atLeast, decide, someGroups, theClass, wholeSet } from '../release/index.js';
import type { ReleaseFacts } from '../release/index.js';
import { cellsAt, changesOf, releaseAt, ticksOf, viewersAt, whyOf } from './index.js';
import type { SightActivity, SightFacts, SightOf, SightPerson, SightSeat } from './index.js';

const courseId = 'course' as CourseId;
const [benches, panels] = ['benches' as GroupSetId, 'panels' as GroupSetId];
const [crock, tun, sour] = ['crock' as GroupId, 'tun' as GroupId, 'sour' as GroupId];
const setOf = new Map([[crock, benches], [tun, benches], [sour, panels]]); // prettier-ignore
const groups = [...setOf].map(([groupId, setId]) => ({ groupId, setId }));
const person = (id: string, more: Partial<SightPerson> = {}): SightPerson => ({ enrolmentId: id as EnrolmentId, role: 'student', leftAt: null, leads: [], seesOnlyLed: false, ...more }); // prettier-ignore
const seat = (id: string, groupId: GroupId, from = 0, until: number | null = null): SightSeat => ({ enrolmentId: id as EnrolmentId, groupId, setId: sure(setOf.get(groupId)), from, until }); // prettier-ignore
const aRelease = (more: Partial<ReleaseFacts> = {}): ReleaseFacts => ({
  courseId,
  state: { state: 'live', since: 100 },
  mode: 'own',
  audience: wholeSet(benches),
  outsiders: 'hidden',
  schedule: { opens: null, due: null, closes: null },
  ownTime: new Map(),
  ...more,
});
const activity = (
  release: ReleaseFacts | null,
  of: readonly (GroupId | null)[],
  name = 'report',
): SightActivity => ({
  activityId: name as ActivityId,
  release,
  copies: of.map((groupId) => ({ copyId: `${name} ${groupId}` as CopyId, groupId, setId: groupId === null ? null : sure(setOf.get(groupId)), extension: null })), // prettier-ignore
});
const people = [person('noor'), person('jorge'), person('amina'), person('nino'), person('ilse', { role: 'instructor' })]; // prettier-ignore
const seats = [seat('noor', crock), seat('jorge', crock), seat('amina', tun), seat('noor', sour)];
const facts = (activities: readonly SightActivity[], more: Partial<SightFacts> = {}): SightFacts => ({ courseId, people, seats, groups, activities, ...more }); // prettier-ignore
const inSet = (setId: GroupSetId): readonly SightOf[] => [...groups.filter((group) => group.setId === setId).map((group): SightOf => ({ kind: 'group', ...group })), { kind: 'unplaced', setId }]; // prettier-ignore
const told = (of: SightFacts, at = 200, setId = benches) =>
  cellsAt(of, inSet(setId), at).map((line) => line.map(({ code, from, see, members }) => `${code}${from === null ? '' : `@${from}`} ${see}/${members}`)); // prettier-ignore

describe('who sees what', () => {
  it('is told for each group by what its members see, and for those in none', () => {
    const all = [
      activity(aRelease(), [crock, tun]),
      activity(aRelease({ mode: 'read-along' }), [crock, tun]),
      activity(aRelease({ mode: 'common', audience: theClass }), [null]),
      activity(aRelease({ audience: someGroups(benches, [crock]), outsiders: 'listed' }), [crock]),
      activity(aRelease({ audience: wholeSet(panels) }), [sour]),
      activity(null, []),
    ];
    expect(told(facts(all))).toEqual([
      ['own 2/2', 'own 1/1', 'none 0/1'],
      ['each-other 2/2', 'each-other 1/1', 'none 0/1'],
      ['common 2/2', 'common 1/1', 'common 1/1'],
      ['own 2/2', 'listed 0/1', 'listed 0/1'],
      ['elsewhere 1/2', 'none 0/1', 'none 0/1'],
      ['none 0/2', 'none 0/1', 'none 0/1'],
    ]);
  });

  it('tells what is still to come with its moment, as it will be then', () => {
    const opens = { opens: 300, due: null, closes: 400 };
    const scheduled = { state: 'scheduled', goesLiveAt: 250 } as const;
    const all = [activity(aRelease({ state: scheduled, schedule: opens }), [crock, tun]), activity(aRelease({ schedule: opens, outsiders: 'listed' }), [crock, tun])]; // prettier-ignore
    expect(told(facts(all), 200)[0]).toEqual(['own@300 0/2', 'own@300 0/1', 'none 0/1']);
    expect(told(facts(all), 200)[1]).toEqual(['own@300 0/2', 'own@300 0/1', 'listed 0/1']);
    expect(told(facts(all), 300)[0]).toEqual(['own 2/2', 'own 1/1', 'none 0/1']);
    expect(cellsAt(facts(all), inSet(benches), 400)[0]?.[0]).toMatchObject({ code: 'own', isClosed: true });
    // Before it went live it was still to come.
    expect(told(facts([activity(aRelease(), [crock, tun])]), 50)[0]?.[0]).toBe('own@100 0/2');
  });

  it('tells who has longer, and groups in which no one is as for anyone who would be in them', () => {
    const schedule = { opens: null, due: 1000, closes: null };
    const report = activity(aRelease({ schedule }), [crock, tun]);
    const copies = report.copies.map((copy) => (copy.groupId === tun ? { ...copy, extension: { due: 3000, closes: null } } : copy)); // prettier-ignore
    const [line] = cellsAt(
      facts([{ ...report, copies }], { seats: [seat('noor', crock)] }),
      inSet(benches),
      200,
    );
    expect(line).toMatchObject([{ laterMs: null }, { code: 'own', laterMs: 2000, members: 0, see: 0 }, { members: 3 }]); // prettier-ignore
  });

  it('follows where people sat at the moment, and who had left', () => {
    const moved = { people: [person('noor'), person('jorge', { leftAt: 150 })], seats: [seat('noor', crock, 0, 150), seat('noor', tun, 150), seat('jorge', crock)] }; // prettier-ignore
    const of = facts([activity(aRelease(), [crock, tun])], moved);
    expect(told(of, 149)[0]).toEqual(['own 2/2', 'own 0/0', 'none 0/0']);
    expect(told(of, 150)[0]).toEqual(['own 0/0', 'own 1/1', 'none 0/0']);
  });
});

describe('who sees what, one by one or by saved audience', () => {
  const of = (id: string): SightOf => ({ kind: 'person', enrolmentId: id as EnrolmentId });
  it('tells what each student sees in their own groups, and how much longer they alone have', () => {
    const own = new Map([['amina' as EnrolmentId, { due: 1500, closes: null }]]);
    const schedule = { opens: null, due: 1000, closes: null };
    const all = [activity(aRelease({ schedule, ownTime: own }), [crock, tun]), activity(aRelease({ audience: wholeSet(panels) }), [sour]), activity(aRelease({ mode: 'common', audience: theClass }), [null])]; // prettier-ignore
    const lines = cellsAt(facts(all), [of('noor'), of('amina'), of('nino'), of('ilse')], 200);
    expect(lines.map((line) => line.map(({ code }) => code))).toEqual([
      ['own', 'own', 'none', 'none'],
      ['own', 'none', 'none', 'none'],
      ['common', 'common', 'common', 'none'],
    ]);
    expect(lines[0]?.map(({ laterMs, members }) => [laterMs, members])).toEqual([[null, 1], [500, 1], [null, 1], [null, 0]]); // prettier-ignore
  });

  it('counts those that an audience reaches, and leaves out who left the course', () => {
    const people1 = [...people, person('left', { leftAt: 150 })];
    const reached: SightOf = {
      kind: 'people',
      people: ['noor', 'nino', 'left'].map((id) => id as EnrolmentId),
    };
    const course = facts([activity(aRelease(), [crock, tun])], { people: people1 });
    expect(cellsAt(course, [reached], 200)[0]).toMatchObject([{ code: 'own', see: 1, members: 2 }]);
    expect(cellsAt(course, [reached], 149)[0]).toMatchObject([{ members: 3 }]);
    const why = sure(whyOf(course, 'report' as ActivityId, reached, 200));
    expect(why.members.map(({ enrolmentId, decision }) => [enrolmentId, decision.access])).toEqual([['noor', 'open'], ['nino', 'hidden']]); // prettier-ignore
    expect(why.former).toEqual([]);
  });
});

describe('why they see it', () => {
  it('is told person by person, with those who moved away while it was out, and staff', () => {
    const of = facts([activity(aRelease(), [crock, tun])], { seats: [...seats, seat('amina', crock, 0, 120), seat('nino', crock, 0, 50)] }); // prettier-ignore
    const why = sure(
      whyOf(of, 'report' as ActivityId, { kind: 'group', groupId: crock, setId: benches }, 200),
    );
    expect(why.members.map(({ enrolmentId, decision }) => [enrolmentId, decision.access])).toEqual([['noor', 'open'], ['jorge', 'open']]); // prettier-ignore
    // Of this copy, not of the one that she has in her new group.
    expect(why.former.map(({ enrolmentId, until, decision }) => [enrolmentId, until, decision.access])).toEqual([['amina', 120, 'hidden']]); // prettier-ignore
    expect(why.staff.map(({ enrolmentId }) => enrolmentId)).toEqual(['ilse']);
    const none = sure(whyOf(of, 'report' as ActivityId, { kind: 'unplaced', setId: benches }, 200));
    expect(none.members.map(({ enrolmentId, decision }) => [enrolmentId, decision.access])).toEqual([['nino', 'hidden']]); // prettier-ignore
    const led = facts([activity(aRelease(), [crock, tun])], { people: [...people, person('tomas', { role: 'assistant', leads: [tun], seesOnlyLed: true })] }); // prettier-ignore
    const staffOf = (groupId: GroupId | null) => whyOf(led, 'report' as ActivityId, groupId === null ? { kind: 'unplaced', setId: benches } : { kind: 'group', groupId, setId: benches }, 200)?.staff.map(({ decision }) => decision.access); // prettier-ignore
    expect([crock, tun, null].map(staffOf)).toEqual([['open', 'hidden'], ['open', 'open'], []]);
    expect(whyOf(facts([activity(null, [])]), 'report' as ActivityId, { kind: 'group', groupId: crock, setId: benches }, 200)).toBeNull(); // prettier-ignore
  });
});

describe('the ticks of a term', () => {
  it('are what releases do, for all or for one group, and moves, in order', () => {
    const report = activity(aRelease({ schedule: { opens: 150, due: 180, closes: 190 } }), [crock]);
    const copies = report.copies.map((copy) => ({ ...copy, extension: { due: 300, closes: 310 } }));
    const ticks = ticksOf(facts([{ ...report, copies }], { seats: [seat('noor', crock, 0, 170)] }));
    expect(ticks.map(({ at, what }) => `${at} ${what}`)).toEqual(['100 went-live', '150 opens', '170 moved', '190 closes', '310 closes']); // prettier-ignore
  });
});

/** Each person asked about each copy, one after the other. */
function seenBy(of: SightFacts, at: number, line: SightActivity, id: EnrolmentId): boolean {
  const viewer = sure(viewersAt(of, at).get(id));
  const { release } = line;
  if (release === null) return false;
  return line.copies.some((copy) =>
    atLeast(decide(viewer, releaseAt(release, at), copy, at).access, 'read-only'),
  );
}

describe('the matrix', () => {
  const id = fc.constantFrom('noor', 'jorge', 'amina', 'nino');
  const group = fc.constantFrom(crock, tun, sour);
  const moment = fc.nat(400);
  const aSeat = fc.tuple(id, group, moment, fc.option(moment)).map(([who, where, from, until]) => seat(who, where, from, until === null ? null : from + until)); // prettier-ignore
  const state = fc.oneof(
    fc.record({ state: fc.constant('scheduled' as const), goesLiveAt: moment }),
    fc.record({
      state: fc.constantFrom('live' as const, 'closed' as const, 'withdrawn' as const),
      since: moment,
    }),
    fc.constant({ state: 'draft' as const }),
  );
  const audience = fc.constantFrom(theClass, wholeSet(benches), wholeSet(panels), someGroups(benches, [crock]), { include: [...wholeSet(benches).include, ...wholeSet(panels).include], exclude: ['noor' as EnrolmentId] }); // prettier-ignore
  const release = fc.record({
    courseId: fc.constant(courseId),
    state,
    mode: fc.constantFrom('own' as const, 'read-along' as const, 'common' as const),
    audience,
    outsiders: fc.constantFrom('hidden' as const, 'listed' as const),
    schedule: fc.record({ opens: fc.option(moment), due: fc.constant(null), closes: fc.option(moment) }),
    ownTime: fc.constant(new Map()),
  });
  const copiesOf = ({ mode }: ReleaseFacts) => (mode === 'common' ? [null] : [crock, tun, sour]);

  it('counts those who see a copy as asking each of them about every copy does', () => {
    fc.assert(
      fc.property(fc.array(aSeat, { maxLength: 8 }), release, moment, (own, of, at) => {
        const course = facts([activity(of, copiesOf(of))], { seats: own });
        const [line] = cellsAt(course, inSet(benches), at);
        const at1 = viewersAt(course, at);
        for (const [column, groupId] of [crock, tun, null].entries()) {
          const members = [...at1.values()].filter(({ role, groups: in1 }) => role === 'student' && (groupId === null ? !in1.some(({ setId }) => setId === benches) : in1.some((each) => each.groupId === groupId))); // prettier-ignore
          const see = members.filter(({ enrolmentId }) => seenBy(course, at, sure(course.activities[0]), enrolmentId)); // prettier-ignore
          const cell = sure(sure(line)[column]);
          expect([cell.members, cell.see]).toEqual([members.length, see.length]);
          if (see.length > 0) expect([cell.from, cell.code === 'none', cell.code === 'listed']).toEqual([null, false, false]); // prettier-ignore
        }
      }),
      { numRuns: 400 },
    );
  });

  it('keeps what it says of the future, as long as no one acts', () => {
    fc.assert(
      fc.property(fc.array(aSeat, { maxLength: 6 }), release, moment, (own, of, at) => {
        const settled = own.map((each) => ({ ...each, from: 0, until: null }));
        const course = facts([activity(of, copiesOf(of))], { seats: settled });
        const [line] = cellsAt(course, inSet(benches), at);
        for (const [column, cell] of sure(line).entries()) {
          if (cell.from === null) continue;
          expect(cell.from).toBeGreaterThan(at);
          const then = sure(sure(cellsAt(course, inSet(benches), cell.from)[0])[column]);
          expect([then.code, then.from]).toEqual([cell.code, null]);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('tells each student as asking them about every copy does', () => {
    fc.assert(
      fc.property(fc.array(aSeat, { maxLength: 8 }), release, moment, (own, of, at) => {
        const course = facts([activity(of, copiesOf(of))], { seats: own });
        const students = people.filter(({ role }) => role === 'student');
        const [line] = cellsAt(course, students.map(({ enrolmentId }): SightOf => ({ kind: 'person', enrolmentId })), at); // prettier-ignore
        const seen = students.map(({ enrolmentId }) => seenBy(course, at, sure(course.activities[0]), enrolmentId)); // prettier-ignore
        expect(sure(line).map(({ see }) => see === 1)).toEqual(seen);
      }),
      { numRuns: 300 },
    );
  });

  it('stays as it is between two changes', () => {
    fc.assert(
      fc.property(fc.array(aSeat, { maxLength: 8 }), release, moment, fc.nat(900), (own, of, leftAt, at) => {
        const left = people.map((each) => (each.enrolmentId === 'noor' ? { ...each, leftAt } : each));
        const ownTime = new Map([['jorge' as EnrolmentId, { due: 50, closes: leftAt + 100 }]]);
        const course = facts([activity({ ...of, ownTime }, copiesOf(of))], { seats: own, people: left });
        const change = changesOf(course).findLast((moment1) => moment1 <= at);
        if (change === undefined) return;
        const columns = [...inSet(benches), { kind: 'person', enrolmentId: 'jorge' as EnrolmentId } as const]; // prettier-ignore
        expect(cellsAt(course, columns, change)).toEqual(cellsAt(course, columns, at));
      }),
      { numRuns: 400 },
    );
  });
});
