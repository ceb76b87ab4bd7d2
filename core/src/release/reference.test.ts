import { expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Viewer } from '../course/index.js';
import type { AudienceId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { decide } from './index.js';
import type { Access, Audience, AudienceEntry, Extension, ReleaseFacts, ReleaseState } from './index.js';

/** Who sees what, told once more and as plainly as it can be: lists of people, lists of groups and moments, without a thought for speed. Whole courses are
 * made up, with people who move and leave, and every person is asked about every copy at many moments. */
const course = 'fer220' as CourseId;
const students = ['noor', 'jorge', 'amina', 'kofi'] as EnrolmentId[];
const groups = [
  { groupId: 'crock' as GroupId, setId: 'benches' as GroupSetId },
  { groupId: 'carboy' as GroupId, setId: 'benches' as GroupSetId },
  { groupId: 'sour' as GroupId, setId: 'panels' as GroupSetId },
  { groupId: 'salt' as GroupId, setId: 'panels' as GroupSetId },
];

interface Stay {
  readonly who: EnrolmentId;
  readonly group: (typeof groups)[number];
  readonly from: number;
  readonly until: number;
}
interface Course {
  readonly stays: readonly Stay[];
  readonly leaves: ReadonlyMap<string, number>;
  readonly leads: readonly GroupId[];
  readonly seesOnlyLed: boolean;
  readonly state: ReleaseState;
  readonly mode: ReleaseFacts['mode'];
  readonly audience: Audience;
  readonly outsiders: ReleaseFacts['outsiders'];
  readonly opens: number | null;
  readonly closes: number | null;
  readonly ofGroups: ReadonlyMap<string, Extension>;
  readonly ofStudents: ReadonlyMap<EnrolmentId, Extension>;
}
type Role = Viewer['role'];

const moment = fc.nat(100);
const more = fc.record({ due: moment, closes: fc.option(moment) });
const anEntry: fc.Arbitrary<AudienceEntry> = fc.oneof(
  fc.constantFrom<AudienceEntry>({ kind: 'class' }, { kind: 'staff' }),
  fc.constantFrom(...groups).map(({ setId }) => ({ kind: 'set' as const, setId })),
  fc.constantFrom(...groups).map((group) => ({ kind: 'group' as const, ...group })),
  fc.constantFrom(...students).map((enrolmentId) => ({ kind: 'person' as const, enrolmentId })),
  fc.tuple(fc.subarray(students), fc.subarray(groups)).map(([people, some]) => ({
    kind: 'audience' as const,
    audienceId: 'dairy' as AudienceId,
    people: new Map(people.map((id) => [id, { kind: 'class' as const }])),
    groups: new Map(some.map(({ groupId, setId }) => [groupId, setId])),
  })),
);
const someExtensions = <Id extends string>(ids: readonly Id[]) =>
  fc
    .subarray([...ids], { maxLength: 2 })
    .chain((chosen) =>
      fc
        .tuple(...chosen.map(() => more))
        .map((granted) => new Map(chosen.flatMap((id, at) => (granted[at] ? [[id, granted[at]]] : [])))),
    );
const aCourse: fc.Arbitrary<Course> = fc.record({
  stays: fc.array(
    fc
      .tuple(fc.constantFrom(...students), fc.constantFrom(...groups), moment, moment)
      .map(([who, group, from, long]) => ({ who, group, from, until: from + long })),
    { maxLength: 8 },
  ),
  leaves: fc.dictionary(fc.constantFrom<string>(...students, 'tomas'), moment, { maxKeys: 2 }).map((at) => new Map(Object.entries(at))), // prettier-ignore
  leads: fc.subarray(groups.map(({ groupId }) => groupId)),
  seesOnlyLed: fc.boolean(),
  state: fc.oneof(
    fc.constant({ state: 'draft' as const }),
    moment.map((goesLiveAt) => ({ state: 'scheduled' as const, goesLiveAt })),
    fc.constantFrom('live' as const, 'live' as const, 'closed' as const, 'withdrawn' as const).map((state) => ({ state, since: 0 })), // prettier-ignore
  ),
  mode: fc.constantFrom('own' as const, 'read-along' as const, 'common' as const),
  audience: fc.record({
    include: fc.array(anEntry, { maxLength: 3 }),
    exclude: fc.subarray(students, { maxLength: 2 }),
  }),
  outsiders: fc.constantFrom('hidden' as const, 'listed' as const),
  opens: fc.option(moment),
  closes: fc.option(moment),
  ofGroups: someExtensions(groups.map(({ groupId }) => groupId as string)),
  ofStudents: someExtensions(students),
});

/** Everyone in the course by name, and what they are there. */
const people: readonly (readonly [string, Role])[] = [
  ...students.map((id) => [id, 'student'] as const),
  ['ilse', 'instructor'],
  ['tomas', 'assistant'],
  ['oke', 'observer'],
];

const sitsIn = (made: Course, who: string, at: number) =>
  made.stays
    .filter((stay) => stay.who === who && stay.from <= at && at < stay.until)
    .map(({ group }) => group);

/** By name: all students that it goes to. */
function meant(made: Course, at: number): string[] {
  const named: string[] = [];
  for (const entry of made.audience.include)
    for (const who of students) {
      const own = sitsIn(made, who, at);
      if (entry.kind === 'class') named.push(who);
      if (entry.kind === 'person' && entry.enrolmentId === who) named.push(who);
      if (entry.kind === 'set' && own.some(({ setId }) => setId === entry.setId)) named.push(who);
      if (entry.kind === 'group' && own.some(({ groupId }) => groupId === entry.groupId)) named.push(who);
      if (entry.kind === 'audience' && [...entry.people.keys()].includes(who)) named.push(who);
    }
  return named.filter((who) => !made.audience.exclude.some((id) => id === who));
}

/** By name: all groups that get a copy. */
function served(made: Course): string[] {
  const named: string[] = [];
  for (const entry of made.audience.include)
    for (const { groupId, setId } of groups) {
      if (entry.kind === 'set' && entry.setId === setId) named.push(groupId);
      if (entry.kind === 'group' && entry.groupId === groupId) named.push(groupId);
      if (entry.kind === 'audience' && [...entry.groups.keys()].includes(groupId)) named.push(groupId);
    }
  return named;
}

/** Up to when there is work in this copy for this student; what never closes closes at the end of all time. */
function worksUntil(made: Course, groupId: string | null, who: string): number {
  if (made.state.state === 'closed') return 0;
  const forAll = made.closes ?? Infinity;
  const granted = [made.ofGroups.get(groupId ?? ''), made.ofStudents.get(who as EnrolmentId)].filter((each) => each !== undefined); // prettier-ignore
  if (granted.length === 0) return forAll;
  return Math.max(...granted.map(({ due, closes }) => Math.max(closes ?? forAll, due)));
}

function reference(made: Course, who: string, role: Role, groupId: GroupId | null, at: number): Access {
  if (at >= (made.leaves.get(who) ?? Infinity)) return 'hidden';
  if (role === 'instructor') return 'open';
  if (role === 'assistant')
    return !made.seesOnlyLed || groupId === null || made.leads.includes(groupId) ? 'open' : 'hidden';
  if (role === 'observer') return made.state.state === 'draft' ? 'hidden' : 'read-only';
  if (made.state.state === 'draft' || made.state.state === 'withdrawn') return 'hidden';
  if (made.state.state === 'scheduled' && at < made.state.goesLiveAt) return 'hidden';
  const ifOutside = made.outsiders;
  if (!meant(made, at).includes(who)) return ifOutside;
  const isForAll = made.mode === 'common';
  if (isForAll !== (groupId === null)) return 'hidden';
  if (groupId !== null && !served(made).includes(groupId)) return 'hidden';
  const isTheirs = isForAll || sitsIn(made, who, at).some((own) => own.groupId === groupId);
  if (!isTheirs && made.mode !== 'read-along') return 'hidden';
  if (made.opens !== null && at < made.opens) return ifOutside;
  return isTheirs && at < worksUntil(made, groupId, who) ? 'open' : 'read-only';
}

it('is decided as it is told most plainly: for everyone in made-up courses, about every copy, at any moment', () => {
  const met = new Map<string, number>();
  fc.assert(
    fc.property(aCourse, fc.array(moment, { minLength: 1, maxLength: 4 }), (made, moments) => {
      const release: ReleaseFacts = {
        courseId: course,
        state: made.state,
        mode: made.mode,
        audience: made.audience,
        outsiders: made.outsiders,
        schedule: { opens: made.opens, due: null, closes: made.closes },
        ownTime: made.ofStudents,
      };
      const differing: object[] = [];
      for (const at of moments)
        for (const [who, role] of people)
          for (const { groupId, setId } of [...groups, { groupId: null, setId: null }]) {
            const viewer: Viewer = {
              courseId: course,
              enrolmentId: who as EnrolmentId,
              role,
              hasLeft: at >= (made.leaves.get(who) ?? Infinity),
              groups: sitsIn(made, who, at),
              leads: role === 'assistant' ? made.leads : [],
              seesOnlyLed: role === 'assistant' && made.seesOnlyLed,
            };
            const copy = { groupId, setId, extension: made.ofGroups.get(groupId ?? '') ?? null };
            const { access } = decide(viewer, release, copy, at);
            const plainly = reference(made, who, role, groupId, at);
            if (access !== plainly) differing.push({ who, groupId, at, access, plainly });
            met.set(`${role} ${access}`, (met.get(`${role} ${access}`) ?? 0) + 1);
          }
      expect(differing).toEqual([]);
    }),
    { numRuns: 1500 },
  );
  // Each of the answers was really met.
  expect([...met.keys()].filter((key) => key.startsWith('student')).toSorted()).toEqual([
    'student hidden',
    'student listed',
    'student open',
    'student read-only',
  ]);
});
