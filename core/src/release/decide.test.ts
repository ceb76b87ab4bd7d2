import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { AudienceId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { atLeast, decide, explain, mayAct } from './index.js';
import type { Audience, AudienceEntry, CopyFacts, ReleaseFacts, ReleaseState } from './index.js';
import type { Viewer } from '../course/index.js';

const course = 'fer220' as CourseId;
const benches = 'benches' as GroupSetId;
const panels = 'panels' as GroupSetId;
const groupsOf: Record<string, GroupSetId> = { crock: benches, carboy: benches, sour: panels, salt: panels };
const seat = (name: string) => ({ groupId: name as GroupId, setId: sure(groupsOf[name]) });
const crock = { ...seat('crock'), extension: null };
const carboy = { ...seat('carboy'), extension: null };

const aStudent = (more: Partial<Viewer> = {}): Viewer => ({
  courseId: course,
  enrolmentId: 'noor' as EnrolmentId,
  role: 'student',
  hasLeft: false,
  groups: [seat('crock')],
  leads: [],
  seesOnlyLed: false,
  ...more,
});
const aRelease = (more: Partial<ReleaseFacts> = {}): ReleaseFacts => ({
  courseId: course,
  state: { state: 'live', since: 0 },
  mode: 'own',
  audience: { include: [{ kind: 'set', setId: benches }], exclude: [] },
  outsiders: 'hidden',
  schedule: { opens: null, due: null, closes: null },
  ownTime: new Map(),
  ...more,
});
const access = (viewer: Viewer | null, release: ReleaseFacts, copy: CopyFacts, now = 100) =>
  decide(viewer, release, copy, now).access;

const wording = {
  dateTime: String,
  groupName: () => 'Crock',
  setName: () => 'Bench teams',
  audienceName: () => 'Dairy',
};

describe('who sees what', () => {
  it('opens a group its own copy and hides the copies of others', () => {
    expect(access(aStudent(), aRelease(), crock)).toBe('open');
    expect(access(aStudent(), aRelease(), carboy)).toBe('hidden');
  });
  it('lets groups read along where the release says so', () =>
    expect(access(aStudent(), aRelease({ mode: 'read-along' }), carboy)).toBe('read-only'));
  it('opens the common copy to the whole audience', () => {
    const common = aRelease({ mode: 'common', audience: { include: [{ kind: 'class' }], exclude: [] } });
    expect(access(aStudent({ groups: [] }), common, { groupId: null, setId: null, extension: null })).toBe(
      'open',
    );
    expect(access(aStudent(), common, crock)).toBe('hidden'); // a private copy never turns into everyone's
  });
  it('shows an assistant who sees the led groups only those, and what all work in together', () => {
    const leads = aStudent({ role: 'assistant', groups: [], leads: [crock.groupId], seesOnlyLed: true });
    expect(access(leads, aRelease(), crock)).toBe('open');
    expect(access(leads, aRelease(), carboy)).toBe('hidden');
    const common = aRelease({ mode: 'common' });
    expect(access(leads, common, { groupId: null, setId: null, extension: null })).toBe('open');
    expect(access({ ...leads, seesOnlyLed: false }, aRelease(), carboy)).toBe('open');
  });
  it('hides drafts and withdrawn work from students, not from instructors', () => {
    for (const state of [{ state: 'draft' }, { state: 'withdrawn', since: 1 }] as ReleaseState[]) {
      expect(access(aStudent(), aRelease({ state }), crock)).toBe('hidden');
      expect(access(aStudent({ role: 'instructor' }), aRelease({ state }), crock)).toBe('open');
    }
  });
  it('goes live at its moment without anything having run', () => {
    const release = aRelease({ state: { state: 'scheduled', goesLiveAt: 50 } });
    expect(access(aStudent(), release, crock, 49)).toBe('hidden');
    expect(access(aStudent(), release, crock, 50)).toBe('open');
  });
  it('follows its window: hidden before it opens, read only once closed', () => {
    const release = aRelease({ schedule: { opens: 10, due: 20, closes: 30 } });
    expect([9, 10, 29, 30].map((now) => access(aStudent(), release, crock, now))).toEqual([
      'hidden',
      'open',
      'open',
      'read-only',
    ]);
    expect(access(aStudent(), { ...release, outsiders: 'listed' }, crock, 9)).toBe('listed');
  });
  it('tells outsiders that it exists only where the release says so', () => {
    const sourOnly = aStudent({ groups: [{ groupId: 'sour' as GroupId, setId: panels }] });
    expect(access(sourOnly, aRelease(), crock)).toBe('hidden');
    expect(access(sourOnly, aRelease({ outsiders: 'listed' }), crock)).toBe('listed');
  });
  it('keeps it open for a group that has longer, and says until when', () => {
    const longer = { ...crock, extension: { due: 50, closes: null } };
    const release = aRelease({ schedule: { opens: null, due: 20, closes: 30 } });
    expect([29, 30, 49, 50].map((now) => access(aStudent(), release, longer, now))).toEqual([
      'open',
      'open',
      'open',
      'read-only',
    ]);
    expect(decide(aStudent(), release, longer, 40).reasons).toContainEqual({
      code: 'extended',
      due: 50,
      isOwn: false,
    });
  });
  it('keeps it open for one student who has longer, and for no one beside them', () => {
    const own = new Map([['noor' as EnrolmentId, { due: 50, closes: null }]]);
    const release = aRelease({ schedule: { opens: null, due: 20, closes: 30 }, ownTime: own });
    const jorge = aStudent({ enrolmentId: 'jorge' as EnrolmentId });
    const at = (viewer: Viewer) => [29, 40, 50].map((now) => access(viewer, release, crock, now));
    expect(at(aStudent())).toEqual(['open', 'open', 'read-only']);
    expect(at(jorge)).toEqual(['open', 'read-only', 'read-only']);
    expect(explain(decide(aStudent(), release, crock, 40), { ...wording, isToYou: true })).toContain(
      'You have until 50, by an extension of your own.',
    );
    expect(explain(decide(jorge, release, crock, 40), wording).join(' ')).not.toContain('extension');
  });
  it('tells whose work it is from who only reads', () => {
    const part = (viewer: Viewer, release = aRelease({ mode: 'read-along' }), copy: CopyFacts = crock) =>
      decide(viewer, release, copy, 1).part;
    expect(part(aStudent())).toBe('member');
    expect(part(aStudent(), aRelease({ mode: 'read-along' }), carboy)).toBe('reader');
    expect(part(aStudent({ role: 'assistant' }))).toBe('staff');
    expect(part(aStudent({ role: 'observer' }))).toBe('reader');
  });
  it('closes the course to those who left it, whatever their groups were', () =>
    expect(
      access(aStudent({ hasLeft: true, role: 'instructor' }), aRelease({ outsiders: 'listed' }), crock),
    ).toBe('hidden'));
  it('lets observers look and not touch', () => {
    expect(access(aStudent({ role: 'observer', groups: [] }), aRelease(), carboy)).toBe('read-only');
    expect(
      access(aStudent({ role: 'observer', groups: [] }), aRelease({ state: { state: 'draft' } }), carboy),
    ).toBe('hidden');
  });
  it('says why, verdict first', () => {
    expect(explain(decide(aStudent(), aRelease(), crock, 1), wording)).toEqual([
      'Can read and work in it.',
      'It was released to Bench teams.',
      'Is a member of Crock, which has this copy for itself.',
    ]);
    expect(explain(decide(aStudent(), aRelease(), carboy, 1), wording)).toEqual([
      'Sees nothing of it.',
      'This copy belongs to another group.',
    ]);
  });
});

const aGroupName = fc.constantFrom(...Object.keys(groupsOf));
const anEntry: fc.Arbitrary<AudienceEntry> = fc.oneof(
  fc.constant({ kind: 'class' as const }),
  fc.constantFrom(benches, panels).map((setId) => ({ kind: 'set' as const, setId })),
  aGroupName.map((name) => ({ kind: 'group' as const, ...seat(name) })),
  fc.constantFrom('noor', 'jorge').map((id) => ({ kind: 'person' as const, enrolmentId: id as EnrolmentId })),
  fc.constant({ kind: 'staff' as const }),
  fc
    .tuple(fc.subarray(['noor', 'jorge'] as EnrolmentId[]), fc.subarray(Object.keys(groupsOf)))
    .map(([people, names]) => ({
      kind: 'audience' as const,
      audienceId: 'dairy' as AudienceId,
      people: new Map(people.map((id) => [id, { kind: 'class' as const }])),
      groups: new Map(names.map((name) => [name as GroupId, sure(groupsOf[name])])),
    })),
);
const anAudience: fc.Arbitrary<Audience> = fc.record({
  include: fc.array(anEntry, { maxLength: 4 }),
  exclude: fc.subarray(['noor', 'jorge'] as EnrolmentId[]),
});
const aState: fc.Arbitrary<ReleaseState> = fc.oneof(
  fc.constant({ state: 'draft' as const }),
  fc.nat(100).map((goesLiveAt) => ({ state: 'scheduled' as const, goesLiveAt })),
  fc
    .tuple(fc.constantFrom('live' as const, 'closed' as const, 'withdrawn' as const), fc.nat(100))
    .map(([state, since]) => ({ state, since })),
);
const anyRelease: fc.Arbitrary<ReleaseFacts> = fc.record({
  courseId: fc.constant(course),
  state: aState,
  mode: fc.constantFrom('own' as const, 'read-along' as const, 'common' as const),
  audience: anAudience,
  outsiders: fc.constantFrom('hidden' as const, 'listed' as const),
  schedule: fc.record({
    opens: fc.option(fc.nat(100)),
    due: fc.option(fc.nat(100)),
    closes: fc.option(fc.nat(100)),
  }),
  ownTime: fc
    .option(fc.record({ due: fc.nat(120), closes: fc.option(fc.nat(120)) }))
    .map((own) => new Map(own ? [['noor' as EnrolmentId, own]] : [])),
});
const anyStudent: fc.Arbitrary<Viewer> = fc.record({
  courseId: fc.constantFrom(course, 'brw501' as CourseId),
  enrolmentId: fc.constantFrom('noor', 'jorge').map((id) => id as EnrolmentId),
  role: fc.constant('student' as const),
  hasLeft: fc.boolean(),
  leads: fc.constant([]),
  seesOnlyLed: fc.constant(false),
  groups: fc
    .subarray(Object.keys(groupsOf))
    .map((names) => names.map((name) => ({ groupId: name as GroupId, setId: sure(groupsOf[name]) }))),
});
const anyCopy: fc.Arbitrary<CopyFacts> = fc.oneof(
  fc
    .record({ name: aGroupName, due: fc.option(fc.nat(120)), closes: fc.option(fc.nat(120)) })
    .map(({ name, due, closes }) => ({ ...seat(name), extension: due === null ? null : { due, closes } })),
  fc.constant({ groupId: null, setId: null, extension: null }),
);

/** The rule in its plainest form, written apart from `decide`: may this student read this copy at all? */
function mayRead(viewer: Viewer, release: ReleaseFacts, copy: CopyFacts, now: number): boolean {
  const { include, exclude } = release.audience;
  const { state } = release;
  const isOut =
    state.state === 'live' ||
    state.state === 'closed' ||
    (state.state === 'scheduled' && state.goesLiveAt <= now);
  const isMine = (entry: AudienceEntry) =>
    entry.kind === 'class' ||
    (entry.kind === 'person' && entry.enrolmentId === viewer.enrolmentId) ||
    (entry.kind === 'audience' && entry.people.has(viewer.enrolmentId)) ||
    viewer.groups.some(
      (at) =>
        (entry.kind === 'set' && at.setId === entry.setId) ||
        (entry.kind === 'group' && at.groupId === entry.groupId),
    );
  const reachesCopy = include.some(
    (entry) =>
      (entry.kind === 'set' && entry.setId === copy.setId) ||
      (entry.kind === 'group' && entry.groupId === copy.groupId) ||
      (entry.kind === 'audience' && copy.groupId !== null && entry.groups.has(copy.groupId)),
  );
  const isIn =
    include.some(isMine) &&
    !exclude.includes(viewer.enrolmentId) &&
    viewer.courseId === release.courseId &&
    !viewer.hasLeft;
  const isOpenYet = release.schedule.opens === null || release.schedule.opens <= now;
  if (!isOut || !isIn || !isOpenYet) return false;
  if (release.mode === 'common') return copy.groupId === null;
  const isOwn = viewer.groups.some((at) => at.groupId === copy.groupId);
  return copy.groupId !== null && reachesCopy && (isOwn || release.mode === 'read-along');
}

describe('who sees what, over generated courses', () => {
  it('lets no one outside an audience read anything, and everyone inside', () =>
    fc.assert(
      fc.property(anyStudent, anyRelease, anyCopy, fc.nat(110), (viewer, release, copy, now) => {
        expect(atLeast(access(viewer, release, copy, now), 'read-only')).toBe(
          mayRead(viewer, release, copy, now),
        );
      }),
      { numRuns: 2000 },
    ));

  it('keeps everything hidden from outsiders of a release that hides itself', () =>
    fc.assert(
      fc.property(anyStudent, anyRelease, anyCopy, fc.nat(110), (viewer, release, copy, now) => {
        fc.pre(!mayRead(viewer, release, copy, now));
        expect(access(viewer, { ...release, outsiders: 'hidden' }, copy, now)).toBe('hidden');
      }),
      { numRuns: 2000 },
    ));

  it('lists to outsiders nothing that is not released', () =>
    fc.assert(
      fc.property(anyStudent, anyRelease, anyCopy, fc.nat(110), (viewer, release, copy, now) => {
        fc.pre(access(viewer, release, copy, now) === 'listed');
        expect(release.outsiders).toBe('listed');
        expect(['draft', 'withdrawn']).not.toContain(release.state.state);
        expect(viewer.courseId).toBe(release.courseId);
        expect(viewer.hasLeft).toBe(false);
      }),
      { numRuns: 2000 },
    ));

  it('lets no one who only reads do anything, whatever a kind of activity allows', () =>
    fc.assert(
      fc.property(anyStudent, anyRelease, anyCopy, fc.nat(110), (viewer, release, copy, now) => {
        const decision = decide(viewer, release, copy, now);
        const allows = mayAct({ acts: { write: ['member', 'staff'] } }, 'write', decision);
        expect(allows).toBe(decision.access === 'open' && decision.part === 'member');
        if (decision.part === 'reader') expect(atLeast(decision.access, 'open')).toBe(false);
      }),
    ));

  it('always gives a reason, and hides everything from the signed out', () =>
    fc.assert(
      fc.property(fc.option(anyStudent), anyRelease, anyCopy, fc.nat(110), (viewer, release, copy, now) => {
        const decision = decide(viewer, release, copy, now);
        expect(decision.reasons.length).toBeGreaterThan(0);
        if (viewer === null) expect(decision.access).toBe('hidden');
      }),
    ));
});
