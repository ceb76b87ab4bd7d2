import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Role } from '../course/index.js';
import type { AudienceId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { circleOf, fitsTest, resolver, sayTerm, usersOf } from './index.js';
import type { AudiencePerson, CourseFacts, SavedAudience, Term, Terms } from './index.js';

/** Ids of all kinds alike: only the types tell them apart. */
const id = (name: string) => name as never;
const groups: CourseFacts['groups'] = ['b1', 'b2', 'b3', 'p1', 'p2'].map((name) => ({
  groupId: id(name),
  setId: id(name.startsWith('b') ? 'benches' : 'panels'),
}));
const names: readonly AudienceId[] = ['a0', 'a1', 'a2', 'a3', 'a4'].map(id);

const aTerm = (people: number, audiences: readonly AudienceId[]): fc.Arbitrary<Term> =>
  fc.oneof(
    fc.constant<Term>({ kind: 'class' }),
    fc.constantFrom('benches', 'panels', 'gone').map((set): Term => ({ kind: 'set', setId: id(set) })),
    fc.constantFrom(...groups).map((group): Term => ({ kind: 'group', ...group })),
    fc.constantFrom<Role>('instructor', 'assistant', 'student').map((role): Term => ({ kind: 'role', role })),
    fc.nat(people).map((at): Term => ({ kind: 'person', enrolmentId: id(`s${at}`) })),
    fc
      .constantFrom('Mon am', 'mon', 'Tue')
      .map((value): Term => ({ kind: 'attribute', name: 'Free', test: 'has', value })),
    ...(audiences.length === 0
      ? []
      : [fc.constantFrom(...audiences).map((audienceId): Term => ({ kind: 'audience', audienceId }))]),
  );
const someTerms = (people: number, audiences: readonly AudienceId[]): fc.Arbitrary<Terms> =>
  fc.record({
    include: fc.array(aTerm(people, audiences), { maxLength: 4 }),
    exclude: fc.array(aTerm(people, audiences), { maxLength: 3 }),
  });

/** Courses in which each audience may name those before it. */
const aCourse: fc.Arbitrary<CourseFacts> = fc
  .array(
    fc.record({
      role: fc.constantFrom<Role>('student', 'student', 'student', 'assistant', 'instructor'),
      groups: fc.subarray([...groups]),
      attributes: fc.constantFrom<Record<string, string>>(
        {},
        { Free: 'Mon, Tue pm' },
        { Free: 'Mon am' },
        { Free: 'Tue' },
        { Free: 'none' },
      ),
    }),
    { maxLength: 9 },
  )
  .chain((people) =>
    fc.tuple(...names.map((_, at) => someTerms(people.length, names.slice(0, at)))).map((all) => ({
      people: people.map((person, at) => ({ enrolmentId: id(`s${at}`), ...person })),
      groups,
      audiences: all.map((terms, at) => ({ id: sure(names[at]), ...terms })),
    })),
  );

/** One person and one term at a time, straight from the words of the rule. */
function slowly(facts: CourseFacts, person: AudiencePerson, terms: Terms): boolean {
  const fits = (term: Term): boolean => {
    if (term.kind === 'class') return person.role === 'student';
    if (term.kind === 'role') return person.role === term.role;
    if (term.kind === 'set') return person.groups.some((group) => group.setId === term.setId);
    if (term.kind === 'group') return person.groups.some((group) => group.groupId === term.groupId);
    if (term.kind === 'person') return person.enrolmentId === term.enrolmentId;
    if (term.kind === 'attribute') return fitsTest(person.attributes[term.name], term.test, term.value);
    const audience = facts.audiences.find((each) => each.id === term.audienceId);
    return audience !== undefined && slowly(facts, person, audience);
  };
  return terms.include.some(fits) && !terms.exclude.some(fits);
}
function groupSlowly(facts: CourseFacts, group: (typeof groups)[number], terms: Terms): boolean {
  const names = (term: Term): boolean => {
    if (term.kind === 'set') return group.setId === term.setId;
    if (term.kind === 'group') return group.groupId === term.groupId;
    if (term.kind !== 'audience') return false;
    const audience = facts.audiences.find((each) => each.id === term.audienceId);
    return audience !== undefined && groupSlowly(facts, group, audience);
  };
  return terms.include.some(names) && !terms.exclude.some(names);
}

describe('an audience', () => {
  it('reaches exactly who its lines name, person by person and group by group', () =>
    fc.assert(
      fc.property(aCourse, (facts) => {
        const resolve = resolver(facts);
        for (const audience of facts.audiences) {
          const { people, removed, groups: reached } = resolve(audience);
          const inIt = facts.people.filter((person) => slowly(facts, person, audience));
          expect([...people.keys()].sort()).toEqual(inIt.map((person) => person.enrolmentId).sort());
          const named = facts.people.filter((person) => slowly(facts, person, { ...audience, exclude: [] }));
          expect(people.size + removed.size).toBe(named.length);
          expect([...reached.keys()].sort()).toEqual(
            groups.filter((group) => groupSlowly(facts, group, audience)).map((group) => group.groupId),
          );
        }
      }),
    ));

  it('says by which term each is in or removed', () => {
    const noor: AudiencePerson = {
      enrolmentId: id('noor'),
      role: 'student',
      groups: [{ groupId: id('b1'), setId: id('benches') }],
      attributes: {},
    };
    const jorge: AudiencePerson = { ...noor, enrolmentId: id('jorge') };
    const resolve = resolver({ people: [noor, jorge], groups, audiences: [] });
    const benches: Term = { kind: 'set', setId: id('benches') };
    const without: Term = { kind: 'person', enrolmentId: id('jorge') };
    const { people, removed } = resolve({
      include: [{ kind: 'role', role: 'observer' }, benches],
      exclude: [without],
    });
    expect(people).toEqual(new Map([['noor', benches]]));
    expect(removed).toEqual(new Map([['jorge', without]]));
  });

  it('that names one which is not there, or itself, ends all the same', () => {
    const self: SavedAudience = {
      id: id('a'),
      include: [{ kind: 'audience', audienceId: id('a') }],
      exclude: [],
    };
    const resolve = resolver({ people: [], groups: [], audiences: [self] });
    expect(resolve(self).people.size).toBe(0);
    expect(
      resolve({ include: [{ kind: 'audience', audienceId: id('gone') }], exclude: [] }).people.size,
    ).toBe(0);
  });
});

describe('audiences that name others', () => {
  const naming = (from: string, ...to: string[]): SavedAudience => ({
    id: id(from),
    include: to.map((each) => ({ kind: 'audience', audienceId: id(each) })),
    exclude: [],
  });
  const all = [
    naming('top', 'middle'),
    naming('middle', 'low', 'other'),
    naming('low'),
    naming('other', 'low'),
  ];

  it('come back to themselves only where there is a circle, with the way there', () => {
    expect(circleOf(id('low'), naming('low', 'top'), all)).toEqual(['low', 'top', 'middle', 'low']);
    expect(circleOf(id('low'), naming('low', 'low'), all)).toEqual(['low', 'low']);
    expect(circleOf(id('top'), naming('top', 'other', 'low'), all)).toBeNull();
    const through = { include: [], exclude: naming('low', 'middle').include };
    expect(circleOf(id('low'), through, all)).toEqual(['low', 'middle', 'low']); // also by taking away
  });

  it('are known to the one that they name', () => {
    expect(usersOf(id('low'), all)).toEqual(new Set(['middle', 'other', 'top']));
    expect(usersOf(id('top'), all)).toEqual(new Set());
  });
});

describe('the value of an attribute', () => {
  it.each([
    ['Mon, Tue pm', 'has', 'Mon am', true],
    ['Tue pm', 'has', 'Tue', false],
    ['Tue pm', 'has', 'none', false],
    ['English; Français', 'has', 'francais', true],
    ['English only', 'has', 'English', false],
    ['Some', 'is', 'some', true],
    ['some more', 'is', 'some', false],
    [undefined, 'is', '', false],
  ] as const)('%s %s %s: %s', (value, test, wanted, fits) =>
    expect(fitsTest(value, test, wanted)).toBe(fits),
  );
});

it('says terms in words, also of what is gone', () => {
  const names = {
    set: () => 'Bench teams',
    group: () => null,
    person: () => 'Noor',
    audience: () => 'Dairy',
  };
  const say = (term: Term) => sayTerm(term, names);
  expect(say({ kind: 'set', setId: id('s') })).toBe('Everyone in Bench teams');
  expect(say({ kind: 'group', setId: id('s'), groupId: id('g') })).toBe(
    'Members of a group that was removed',
  );
  expect(say({ kind: 'attribute', name: 'Free half-days', test: 'has', value: 'Mon am' })).toBe(
    'Free half-days has Mon am',
  );
  expect(say({ kind: 'audience', audienceId: id('a') })).toBe('Audience Dairy');
});
