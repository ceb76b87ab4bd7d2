import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type {
  ActivityId,
  AudienceId,
  CopyId,
  CourseId,
  EnrolmentId,
  GroupId,
  GroupSetId,
} from '../ids/index.js';
import { datesFor, isInAudience, someGroups, theClass, wholeSet } from '../release/index.js';
import type { ReleaseFacts } from '../release/index.js';
import { viewersAt } from '../sightlines/index.js';
import type { SightActivity, SightFacts, SightPerson } from '../sightlines/index.js';
import type { RichTextNode } from '../text/index.js';
import { checksOf } from './index.js';
import type { Check, WrittenFacts } from './index.js';

const courseId = 'course' as CourseId;
const benches = 'benches' as GroupSetId;
const groupId = (id: string) => id as GroupId;
const groups = ['a', 'b', 'c'].map((id) => ({ groupId: groupId(id), setId: benches }));
const hour = 3_600_000;
const student = (id: string): SightPerson => ({ enrolmentId: id as EnrolmentId, role: 'student', leftAt: null, leads: [], seesOnlyLed: false }); // prettier-ignore
const people = ['ada', 'bo', 'cho', 'dia'].map(student);
const seat = (id: string, group: string) => ({ enrolmentId: id as EnrolmentId, groupId: groupId(group), setId: benches, from: 0, until: null }); // prettier-ignore
const seats = [seat('ada', 'a'), seat('bo', 'b'), seat('cho', 'c')]; // dia is in none
const aRelease = (more: Partial<ReleaseFacts> = {}): ReleaseFacts => ({ courseId, state: { state: 'live', since: 0 }, mode: 'own', audience: wholeSet(benches), outsiders: 'hidden', schedule: { opens: null, due: null, closes: null }, ownTime: new Map(), ...more }); // prettier-ignore
const activity = (name: string, release: ReleaseFacts | null): SightActivity => ({
  activityId: name as ActivityId,
  release,
  copies: release === null ? [] : release.mode === 'common' ? [{ copyId: name as CopyId, groupId: null, setId: null, extension: null }] : groups.map((group) => ({ copyId: `${name} ${group.groupId}` as CopyId, ...group, extension: null })), // prettier-ignore
});
const text = (...content: readonly RichTextNode[]): RichTextNode => ({ type: 'doc', content: [{ type: 'paragraph', content }] }); // prettier-ignore
const plain: WrittenFacts = { brief: text(), points: null, rubric: null, isWork: true, whyNotDone: () => null }; // prettier-ignore
const check = (activities: readonly SightActivity[], { written = {}, now = 10, ...more }: Partial<SightFacts> & { written?: Partial<WrittenFacts>; now?: number } = {}): readonly Check[] =>
  checksOf({
    sight: { courseId, people, seats, groups, activities, ...more },
    written: new Map(activities.map(({ activityId }) => [activityId, { ...plain, ...written }])),
    now,
  }); // prettier-ignore
const codes = (checks: readonly Check[]) => checks.map(({ code }) => code);
const placed = { seats: [...seats, seat('dia', 'c')] };

describe('who something does not reach', () => {
  it('is no one at all: an empty group, or a saved audience that is empty', () => {
    const empty = { include: [{ kind: 'audience' as const, audienceId: 'none' as AudienceId, people: new Map(), groups: new Map() }], exclude: [] }; // prettier-ignore
    const toEmpty = activity('report', aRelease({ audience: empty }));
    expect(check([toEmpty])).toEqual([{ code: 'reaches-no-one', activityId: 'report', audienceId: 'none' }]);
    const toGroup = activity('report', aRelease({ audience: someGroups(benches, [groupId('a')]) }));
    expect(check([toGroup], { seats: [] })).toMatchObject([{ code: 'reaches-no-one', audienceId: null }]);
    expect(check([activity('staff', aRelease({ mode: 'common', audience: { include: [{ kind: 'staff' }], exclude: [] } }))])).toEqual([]); // prettier-ignore
  });

  it('is a group of a set of which most have it, as long as someone is in it', () => {
    const most = activity('report', aRelease({ audience: someGroups(benches, [groupId('a'), groupId('b')]) })); // prettier-ignore
    expect(check([most])).toEqual([{ code: 'groups-left-out', activityId: 'report', setId: benches, groupIds: ['c'] }]); // prettier-ignore
    expect(check([most], { seats: [seat('ada', 'a')] })).toEqual([]);
    expect(check([activity('report', aRelease({ audience: someGroups(benches, [groupId('a')]) }))])).toEqual([]); // prettier-ignore
  });

  it('is students in no group, told once for all that goes to the set', () => {
    const all = [activity('report', aRelease()), activity('talk', aRelease()), activity('for all', aRelease({ mode: 'common', audience: theClass }))]; // prettier-ignore
    expect(check(all)).toEqual([{ code: 'unplaced', setId: benches, students: ['dia'], activityIds: ['report', 'talk'] }]); // prettier-ignore
    expect(check(all, placed)).toEqual([]);
  });

  it('is not told of what is closed, withdrawn or a draft', () => {
    const past = [aRelease({ state: { state: 'withdrawn', since: 5 } }), aRelease({ state: { state: 'closed', since: 5 } }), aRelease({ schedule: { opens: null, due: null, closes: 10 } }), aRelease({ state: { state: 'draft' } })]; // prettier-ignore
    expect(check(past.map((release, at) => activity(`${at}`, release)))).toEqual([]);
  });
});

describe('dates', () => {
  it('are over before it goes live, or before it opens for someone', () => {
    const scheduled = { state: 'scheduled', goesLiveAt: 200 } as const;
    const late = activity('report', aRelease({ state: scheduled, schedule: { opens: null, due: 200, closes: null } })); // prettier-ignore
    expect(check([late], placed)).toEqual([{ code: 'live-too-late', activityId: 'report', goesLiveAt: 200, over: 'due', at: 200 }]); // prettier-ignore
    const inTime = aRelease({ state: { ...scheduled, goesLiveAt: 199 }, schedule: { opens: null, due: 200, closes: null } }); // prettier-ignore
    expect(check([activity('report', inTime)], placed)).toEqual([]);
    const opening = aRelease({ schedule: { opens: 100, due: 500, closes: null }, ownTime: new Map([['bo' as EnrolmentId, { due: 50, closes: null }]]) }); // prettier-ignore
    const report = activity('report', opening);
    const copies = report.copies.map((copy) => (copy.groupId === 'a' ? { ...copy, extension: { due: 99, closes: null } } : copy)); // prettier-ignore
    expect(check([{ ...report, copies }], placed)).toEqual([
      { code: 'due-before-open', activityId: 'report', who: { groupId: 'a' }, due: 99, opens: 100 },
      { code: 'due-before-open', activityId: 'report', who: { enrolmentId: 'bo' }, due: 50, opens: 100 },
    ]);
  });

  const dueAt = (name: string, due: number, more: Partial<ReleaseFacts> = {}) => activity(name, aRelease({ schedule: { opens: null, due, closes: null }, ...more })); // prettier-ignore
  it('fall together for the students who have to do both, by their own time', () => {
    const own = new Map([['bo' as EnrolmentId, { due: 5 * hour, closes: null }]]);
    const both = [dueAt('report', hour, { ownTime: own }), dueAt('talk', hour + 10)];
    expect(check(both, placed)).toEqual([{ code: 'due-together', activityIds: ['report', 'talk'], due: [hour, hour + 10], students: ['ada', 'cho', 'dia'], inGroups: ['a', 'c'] }]); // prettier-ignore
    expect(check([dueAt('report', hour), dueAt('talk', 2 * hour)], placed)).toEqual([]);
    expect(check(both, { ...placed, now: hour + 11 })).toEqual([]); // over
    expect(codes(check(both, { ...placed, written: { isWork: false } }))).toEqual([]);
  });

  it('fall together for exactly those for whom two of all their dates are within an hour', () => {
    const due = fc.integer({ min: 0, max: 6 }).map((halves) => (halves * hour) / 2);
    const audience = fc.constantFrom(theClass, wholeSet(benches), someGroups(benches, [groupId('a')]));
    const release = fc.record({ due, audience, own: fc.option(due) });
    fc.assert(
      fc.property(fc.array(release, { maxLength: 4 }), (all) => {
        const activities = all.map((each, at) => dueAt(`${at}`, each.due, { mode: each.audience === theClass ? 'common' : 'own', audience: each.audience, ownTime: new Map(each.own === null ? [] : [['ada' as EnrolmentId, { due: each.own, closes: null }]]) })); // prettier-ignore
        const told = new Set(check(activities, { now: 0 }).flatMap((each) => (each.code === 'due-together' ? each.students : []))); // prettier-ignore
        const viewers = viewersAt({ courseId, people, seats, groups, activities }, 0);
        const slow = [...viewers.values()].filter((viewer) => {
          const dues = activities.flatMap(({ release: of }) => {
            if (!of || !isInAudience(viewer, of.audience) || (of.mode === 'own' && viewer.groups.length === 0)) return []; // prettier-ignore
            return datesFor(of.schedule, null, of.ownTime.get(viewer.enrolmentId) ?? null).due ?? [];
          });
          return dues.some((one, at) => dues.some((other, to) => at !== to && Math.abs(one - other) < hour && one > 0 && other > 0)); // prettier-ignore
        });
        expect([...told].toSorted()).toEqual(slow.map(({ enrolmentId }) => enrolmentId).toSorted());
      }),
      { numRuns: 300 },
    );
  });
});

describe('what is written', () => {
  const criterion = (points: string) => ({ id: points, name: 'Method', description: '', weight: '1', levels: [{ id: 'l', name: '', description: '', points: '0' }, { id: 'm', name: '', description: '', points }] }); // prettier-ignore
  it('has a rubric that adds up to something else, drafts too', () => {
    const rubric = { criteria: [criterion('10'), criterion('12.5')] };
    const draft = [activity('report', null)];
    expect(check(draft, { written: { rubric, points: '20' } })).toEqual([{ code: 'rubric-points', activityId: 'report', sum: '22.5', points: '20' }]); // prettier-ignore
    expect(check(draft, { written: { rubric, points: '22.50' } })).toEqual([]);
    expect(check(draft, { written: { rubric, points: null } })).toMatchObject([{ points: null }]);
  });

  it('has a placeholder that is only typed, though not in code', () => {
    const typed = text({ type: 'text', text: 'Dear {group name}, {{Group-Members}} and {a}, {x: 1}' }, { type: 'text', text: '{in code}', marks: [{ type: 'code' }] }, { type: 'placeholder', attrs: { what: 'group-name' } }); // prettier-ignore
    expect(check([activity('report', null)], { written: { brief: typed } })).toEqual([{ code: 'typed-placeholder', activityId: 'report', words: ['{group name}', '{{Group-Members}}'] }]); // prettier-ignore
  });

  it('has a line for groups that do not get it', () => {
    const line = (...ids: readonly string[]) => ({ brief: { type: 'doc', content: [{ type: 'onlyFor', attrs: { groupIds: ids }, content: [] }] } }); // prettier-ignore
    const toA = [activity('report', aRelease({ audience: someGroups(benches, [groupId('a')]) }))];
    expect(check(toA, { written: line('b') })).toEqual([{ code: 'line-for-no-one', activityId: 'report', groupIds: ['b'] }]); // prettier-ignore
    expect(check(toA, { written: line('a', 'b') })).toEqual([]);
    expect(codes(check([activity('report', null)], { written: line() }))).toEqual(['line-for-no-one']);
    expect(check([activity('report', null)], { written: line('b') })).toEqual([]);
    expect(check([activity('all', aRelease({ mode: 'common', audience: theClass }))], { written: line('b') })).toEqual([]); // prettier-ignore
  });

  it('asks for what no one in a group can do', () => {
    const whyNotDone = (members: number) => (members < 2 ? 'There is no one to reply to.' : null);
    expect(check([activity('talk', aRelease())], { ...placed, written: { whyNotDone } })).toEqual([{ code: 'cannot-be-done', activityId: 'talk', why: 'There is no one to reply to.', groupIds: ['a', 'b'] }]); // prettier-ignore
    expect(check([activity('talk', aRelease({ mode: 'common', audience: theClass }))], { written: { whyNotDone } })).toEqual([]); // prettier-ignore
  });
});

it('an assistant who sees only the groups they lead, and leads none, is told of', () => {
  const assistant = (id: string, leads: readonly GroupId[], seesOnlyLed: boolean): SightPerson => ({ ...student(id), role: 'assistant', leads, seesOnlyLed }); // prettier-ignore
  const staff = [assistant('tomas', [], true), assistant('rui', [groupId('a')], true), assistant('eva', [], false)]; // prettier-ignore
  expect(check([], { people: [...people, ...staff] })).toEqual([
    { code: 'leads-none', enrolmentId: 'tomas' },
  ]);
});
