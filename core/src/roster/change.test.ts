import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import {
  applyChange,
  asRole,
  changeOf,
  dropped,
  importChange,
  inverseOf,
  joinChange,
  previewImport,
  sayFault,
} from './index.js';
import type { ColumnMeaning, EntryChange, EntryFields, Roster, RosterEntry } from './index.js';

const id = (name: string) => name as EnrolmentId;
const entry = (more: Partial<RosterEntry> = {}): RosterEntry => ({
  email: 'noor@quillmere.example',
  name: 'Noor Haddad',
  familyName: null,
  reading: null,
  number: null,
  role: 'student',
  isHere: true,
  groups: [],
  joinedTo: null,
  attributes: {},
  ...more,
});
const ilse = entry({ email: 'ilse@quillmere.example', name: 'Ilse Marrow', role: 'instructor' });
const withIlse = (...others: [string, RosterEntry][]): Roster =>
  new Map([[id('ilse'), ilse], ...others.map(([name, each]) => [id(name), each] as const)]);
const plain = (roster: Roster) => [...roster].sort(([a], [b]) => a.localeCompare(b));

/** A change that fits the roster: people added, removed, and edited in one to three fields each. */
const aRoster = fc
  .uniqueArray(fc.integer({ min: 0, max: 30 }), { maxLength: 8 })
  .map((numbers): Roster =>
    withIlse(
      ...numbers.map(
        (n) =>
          [`e${n}`, entry({ email: `p${n}@quillmere.example`, name: `P ${n}`, number: `no-${n}` })] as [
            string,
            RosterEntry,
          ],
      ),
    ),
  );
const someFields = fc.record<EntryFields>(
  {
    name: fc.string({ minLength: 1, maxLength: 5 }),
    reading: fc.option(fc.string({ maxLength: 3 })),
    isHere: fc.boolean(),
    groups: fc.array(
      fc.constantFrom('g1', 'g2', 'g3').map((each) => each as GroupId),
      { maxLength: 2 },
    ),
    attributes: fc.dictionary(
      fc.constantFrom('Lab', 'Diet', '__proto__x'),
      fc.option(fc.string({ maxLength: 3 })),
      { maxKeys: 3 },
    ),
  },
  { requiredKeys: [] },
);
const aChange = aRoster.chain((roster) =>
  fc
    .record({
      edits: fc.array(someFields, { minLength: roster.size, maxLength: roster.size }),
      added: fc.nat({ max: 3 }),
      removed: fc.nat({ max: 2 }),
    })
    .map(({ edits, added, removed }) => {
      const others = [...roster].filter(([name]) => name !== id('ilse'));
      const change: EntryChange[] = [
        ...others
          .slice(0, removed)
          .map(([enrolmentId, each]): EntryChange => ({ kind: 'remove', enrolmentId, entry: each })),
        ...others.slice(removed).flatMap(([enrolmentId, each], at) => {
          const one = changeOf(enrolmentId, each, sure(edits[at]));
          return one ? [one] : [];
        }),
        ...Array.from({ length: added }, (_, at): EntryChange => ({
          kind: 'add',
          enrolmentId: id(`new${at}`),
          entry: entry({ email: `new${at}@quillmere.example`, name: `New ${at}` }),
        })),
      ];
      return { roster, change: change };
    }),
);

describe('a change of the roster', () => {
  it('followed by its inverse gives the same roster', () =>
    fc.assert(
      fc.property(aChange, ({ roster, change }) => {
        const there = applyChange(roster, change);
        if (!there.ok) throw new Error('the change fits');
        const back = applyChange(there.roster, inverseOf(change));
        expect(back.ok && plain(back.roster)).toEqual(plain(roster));
      }),
    ));

  it('is done as a whole or not at all, and names who is no longer as it found them', () => {
    const roster = withIlse(['noor', entry()], ['jo', entry({ email: 'jo@quillmere.example', name: 'Jo' })]);
    const change = [
      sure(changeOf(id('noor'), sure(roster.get(id('noor'))), { name: 'Noor H.' })),
      sure(changeOf(id('jo'), sure(roster.get(id('jo'))), dropped)),
    ];
    const meanwhile = applyChange(roster, [
      sure(changeOf(id('jo'), sure(roster.get(id('jo'))), { isHere: false, groups: [] })),
    ]);
    expect(meanwhile.ok && applyChange(meanwhile.roster, change)).toEqual({
      ok: false,
      conflicts: [id('jo')],
      fault: null,
    });
  });

  it('does not mind what it does not touch', () => {
    const roster = withIlse(['noor', entry({ attributes: { Lab: 'some' } })]);
    const change = [
      sure(changeOf(id('noor'), sure(roster.get(id('noor'))), { attributes: { Lab: 'none' } })),
    ];
    const meanwhile = applyChange(roster, [
      sure(
        changeOf(id('noor'), sure(roster.get(id('noor'))), { name: 'Noor X', attributes: { Diet: 'vegan' } }),
      ),
    ]);
    const after = meanwhile.ok ? applyChange(meanwhile.roster, change) : meanwhile;
    expect(after.ok && after.roster.get(id('noor'))).toMatchObject({
      name: 'Noor X',
      attributes: { Lab: 'none', Diet: 'vegan' },
    });
  });

  it('keeps an instructor, one address and one number each', () => {
    const roster = withIlse(
      ['noor', entry({ number: '1' })],
      ['jo', entry({ email: 'jo@quillmere.example', name: 'Jo', number: '2' })],
    );
    const fault = (name: string, to: EntryFields) => {
      const after = applyChange(roster, [sure(changeOf(id(name), sure(roster.get(id(name))), to))]);
      return after.ok ? null : after.fault && sayFault(after.fault);
    };
    expect(fault('ilse', asRole('observer'))).toBe(
      'A course needs an instructor. Make someone else an instructor first.',
    );
    expect(fault('ilse', dropped)).toBe(
      'A course needs an instructor. Make someone else an instructor first.',
    );
    expect(fault('jo', { email: 'NOOR@quillmere.example' })).toMatch(
      'Noor Haddad and Jo would have the same address',
    );
    expect(fault('jo', { number: '1' })).toBe(
      'Noor Haddad and Jo would have the same number, 1. Give one of them another.',
    );
    expect(fault('jo', { number: null })).toBeNull();
  });

  it('frees the places of whoever leaves or becomes staff', () => {
    expect(dropped.groups).toEqual([]);
    expect(asRole('assistant')).toEqual({ role: 'assistant', groups: [] });
    expect(asRole('student')).toEqual({ role: 'student' });
  });

  it('is nothing where nothing differs', () => {
    expect(
      changeOf(id('noor'), entry({ groups: ['a' as GroupId, 'b' as GroupId] }), {
        groups: ['b' as GroupId, 'a' as GroupId],
        name: 'Noor Haddad',
      }),
    ).toBeNull();
    expect(changeOf(id('noor'), entry(), { attributes: { Lab: null } })).toBeNull();
  });
});

describe('a class file as a change', () => {
  const table = (...rows: string[][]) => ({
    headings: ['Email', 'Name', 'Role', 'Lab'],
    hasHeader: true,
    encoding: 'UTF-8' as const,
    delimiter: ',' as const,
    rows: rows.map((cells, at) => ({ line: at + 2, cells })),
  });
  const meanings: ColumnMeaning[] = ['email', 'name', 'role', 'attribute'];
  const roster = withIlse(
    ['noor', entry({ attributes: { Lab: 'some' }, groups: ['g1' as GroupId] })],
    ['gone', entry({ email: 'gone@quillmere.example', name: 'Gone By', isHere: false })],
    ['absent', entry({ email: 'absent@quillmere.example', name: 'Ab Sent', groups: ['g1' as GroupId] })],
  );
  const rows = table(
    ['noor@quillmere.example', 'Noor Haddad', 'Tutorin', 'none'],
    ['gone@quillmere.example', 'Gone By', '', ''],
    ['new@quillmere.example', 'New Here', 'étudiante', 'some'],
    ['odd@quillmere.example', 'Odd One', 'wizard', ''],
  );
  const see = (newRoles: number[] = []) =>
    previewImport(rows, meanings, roster, 'student', new Map(), {
      newAddresses: new Set(),
      newRoles: new Set(newRoles),
    });
  const preview = see([2]);

  it('changes a role only where it is said, and says what the file tells', () => {
    const unsaid = see();
    if (!unsaid.ok || !preview.ok) throw new Error('it fits');
    expect(unsaid.rows[0]).toMatchObject({
      changes: [{ field: 'Lab' }],
      otherRole: { told: 'assistant', isTaken: false },
    });
    expect(preview.rows[0]).toMatchObject({
      changes: [{ field: 'Role', from: 'student', to: 'assistant' }, { field: 'Lab' }],
      otherRole: { told: 'assistant', isTaken: true },
    });
    const after = applyChange(
      roster,
      importChange(roster, unsaid.rows, 'student', [], () => id('new')),
    );
    if (!after.ok) throw new Error('it fits');
    expect(after.roster.get(id('noor'))).toMatchObject({ role: 'student', groups: ['g1'] });
  });

  it('tells a role that was chosen for all of the file, too', () => {
    const staff = previewImport(
      table(['noor@quillmere.example', 'Noor Haddad', '', '']),
      meanings,
      roster,
      'assistant',
    );
    if (!staff.ok) throw new Error('it fits');
    expect(staff.rows[0]).toMatchObject({
      kind: 'unchanged',
      otherRole: { told: 'assistant', isTaken: false },
    });
  });

  it('brings back who left, takes roles in several languages, and names who is missing', () => {
    if (!preview.ok) throw new Error(preview.code);
    expect(preview.rows.map((row) => row.kind)).toEqual(['changed', 'changed', 'new', 'problem']);
    expect(preview.rows[1]).toMatchObject({
      changes: [{ field: 'In the course', from: 'left', to: 'again' }],
    });
    expect(preview.rows[3]).toMatchObject({ problems: [{ code: 'unknown-role', value: 'wizard' }] });
    expect(preview.missing).toEqual([id('absent')]);
  });

  it('applies, drops whom it is told to drop, and goes back as a whole', () => {
    if (!preview.ok) throw new Error(preview.code);
    const change = importChange(roster, preview.rows, 'student', preview.missing, () => id('new'));
    const after = applyChange(roster, change);
    if (!after.ok) throw new Error('it fits');
    expect(after.roster.get(id('noor'))).toMatchObject({
      role: 'assistant',
      groups: [],
      attributes: { Lab: 'none' },
    });
    expect(after.roster.get(id('gone'))).toMatchObject({ isHere: true });
    expect(after.roster.get(id('new'))).toMatchObject({ role: 'student', attributes: { Lab: 'some' } });
    expect(after.roster.get(id('absent'))).toMatchObject({ isHere: false, groups: [] });
    const back = applyChange(after.roster, inverseOf(change));
    expect(back.ok && plain(back.roster)).toEqual(plain(roster));
  });
});

describe('two entries of one person', () => {
  const setOf = (groupId: GroupId) => groupId.slice(0, 1);
  const someEntry = fc.record({
    number: fc.option(fc.constantFrom('n1', 'n2')),
    reading: fc.option(fc.constantFrom('Noor')),
    isHere: fc.boolean(),
    groups: fc.uniqueArray(fc.constantFrom('a1', 'a2', 'b1', 'c1'), {
      selector: (each) => each.slice(0, 1),
    }) as fc.Arbitrary<GroupId[]>,
    attributes: fc.dictionary(fc.constantFrom('Lab', 'Diet'), fc.constantFrom('some', 'none')),
  });

  it('become one that lacks nothing either had, sits in each set once, and can be parted again', () =>
    fc.assert(
      fc.property(someEntry, someEntry, (one, two) => {
        const roster = withIlse(
          ['one', entry({ ...one, groups: one.isHere ? one.groups : [] })],
          [
            'two',
            entry({
              ...two,
              email: 'noor.two@quillmere.example',
              number: two.number === one.number ? null : two.number,
              groups: two.isHere ? two.groups : [],
            }),
          ],
        );
        const change = joinChange(roster, id('one'), id('two'), setOf);
        const joined = applyChange(roster, change);
        if (!joined.ok) throw new Error('they can be joined');
        const kept = sure(joined.roster.get(id('one')));
        expect(joined.roster.get(id('two'))).toMatchObject({
          isHere: false,
          groups: [],
          number: null,
          joinedTo: id('one'),
        });
        expect(kept.number).toBe(sure(roster.get(id('one'))).number ?? sure(roster.get(id('two'))).number);
        expect(kept.attributes).toEqual({ ...two.attributes, ...one.attributes });
        expect(new Set(kept.groups.map(setOf)).size).toBe(kept.groups.length);
        const sets = [...sure(roster.get(id('one'))).groups, ...sure(roster.get(id('two'))).groups].map(
          setOf,
        );
        expect(new Set(kept.groups.map(setOf))).toEqual(new Set(sets));
        const parted = applyChange(joined.roster, inverseOf(change));
        expect(parted.ok && plain(parted.roster)).toEqual(plain(roster));
      }),
    ));
});
