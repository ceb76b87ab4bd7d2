import { sure } from '@jigsaw/core/lists';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import type { CourseView } from '@jigsaw/contract/course';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { CourseId, EnrolmentId, GroupId, GroupSetId, PersonId } from '@jigsaw/core/ids';
import type { KnownSet, ReadTable } from '@jigsaw/core/roster';
import {
  guessColumns,
  importChange,
  lackingGroups,
  previewImport,
  readTable,
  setKey,
} from '@jigsaw/core/roster';
import { fold } from '@jigsaw/core/text';
import { isArchive, readArchive } from './archive.js';
import { writeBundle, writeCsv } from './classFile.js';
import { knownSets } from './knownSets.js';

const id = <Kind extends string>(name: string): Kind => name as Kind; // eslint-disable-line @typescript-eslint/no-unnecessary-type-parameters
const course = {
  id: id<CourseId>('c'),
  code: 'FER 220',
  title: 'Applied Fermentation',
  term: 'Autumn',
} as CourseView;
const groupsOf = (setId: string, ...names: string[]) =>
  names.map((name, at) => ({ id: id<GroupId>(`${setId}${at}`), number: at + 1, name }));
const set = {
  id: id<GroupSetId>('s'),
  name: 'Bench teams',
  isExclusive: true,
  groups: groupsOf('s', 'Crock', 'Weir; below', '10', '9', 'CROCK', 'Été', 'ete', '=SUM(A1)'),
};
const circles = {
  id: id<GroupSetId>('o'),
  name: 'Reading circles',
  isExclusive: false,
  groups: groupsOf('o', 'Rye', ';', 'Rye', 'Malt;; ale', 'Rye (1)', "'=Rye"),
};
const sets = [set, circles, { id: id<GroupSetId>('t'), name: 'BENCH Teams', isExclusive: true, groups: [] }];

/** The course that the sets are of, as an import meets it. */
const knownHere = knownSets(
  sets.map((each) => ({ ...each, isSynchronised: false, archivedAt: null })),
  sets.flatMap((each) => each.groups.map((group) => ({ ...group, setId: each.id, sourceId: null }))),
);

const seatIn = ({ id: setId }: typeof set, { id: groupId, number, name }: (typeof set.groups)[number]) => ({
  setId,
  groupId,
  number,
  name,
});
const tidyText = (text: string) => text.replace(/\s+/g, ' ').trim().normalize('NFC');
const aWord = fc.oneof(
  fc.constantFrom(
    '한',
    '서연',
    'ليلى',
    'Ó Briain',
    'Zoe\u0301',
    'O"Neil',
    "d'Arc",
    'al-Hamwi',
    'Nguyễn',
    'van der Woestijne',
  ),
  fc.stringMatching(/^[A-Za-z]{1,6}$/),
);
const aCell = fc
  .oneof(
    fc.constantFrom("'+", "''=x", '=1+1', '-5', '+x', '@y', 'a;b', 'two\nlines', "it's", '"q"'),
    fc.string({ maxLength: 6 }),
  )
  .map(tidyText);
/** Headings that a class file would take for something else, beside any other. */
const aHeading = fc
  .oneof(
    fc.constantFrom(
      'E-mail @ home',
      'me@home.example',
      'Note',
      'Student',
      'Given name',
      'Nr.',
      'Role',
      '=SET()',
      "'=x",
      'Attribute: Note',
      'Group in Bench teams',
      'lab',
      'LAB',
      'constructor',
      'a;b',
      '"q"',
    ),
    fc.string({ unit: 'grapheme', maxLength: 8 }),
  )
  .map(tidyText)
  .filter((name) => name !== '' && name !== '__proto__');
const someEntries = fc
  .uniqueArray(
    fc.record({
      given: aWord,
      family: fc.option(aWord),
      reading: fc.option(aWord),
      number: fc.nat(9999),
      role: fc.constantFrom('student', 'assistant', 'instructor', 'observer'),
      lab: aCell,
      free: aCell,
      others: fc.dictionary(aHeading, aCell, { maxKeys: 4 }),
      seat: fc.option(fc.constantFrom(...set.groups)),
      circles: fc.subarray(circles.groups),
    }),
    { selector: (each) => each.number, minLength: 1, maxLength: 12 },
  )
  .map((rows) =>
    rows.map(
      ({ given, family, reading, number, role, lab, free, others, seat, circles: own }, at): RosterEntry => ({
        enrolmentId: id<EnrolmentId>(`e${at}`),
        personId: id<PersonId>(`p${at}`),
        email: `p${at}@quillmere.example`,
        name: tidyText(family ? `${given} ${family}` : given),
        familyName: family && tidyText(family),
        reading: reading && tidyText(reading),
        number: `fe-${number}`,
        role: role,
        attributes: {
          ...(lab && { Lab: lab }),
          ...(free && { 'Free days': free }),
          ...Object.fromEntries(Object.entries(others).filter(([, value]) => value !== '')),
        },
        joinedAt: '2026-10-05T09:00:00.000Z',
        leftAt: null,
        lastSeenAt: null,
        hasComeIn: false,
        invitedAt: null,
        groups:
          role === 'student'
            ? [...(seat ? [seatIn(set, seat)] : []), ...own.map((group) => seatIn(circles, group))]
            : [],
      }),
    ),
  );

/** What an empty course holds after this table was imported with its columns as guessed. */
function broughtIn(read: ReadTable) {
  if (!read.ok) throw new Error(read.code);
  const meanings = guessColumns(read.table).map((column) => column.meaning);
  const preview = previewImport(read.table, meanings, new Map(), 'student');
  if (!preview.ok) throw new Error(preview.code);
  const faulty = preview.rows.filter((row) => row.kind === 'problem');
  if (faulty.length > 0) throw new Error(JSON.stringify(faulty));
  const lacking = lackingGroups(read.table, meanings, preview.rows, new Map());
  const made = new Map(
    lacking.map(({ set: name, isExclusive, groups }) => [
      setKey(name),
      madeSet(sure(name), isExclusive, groups),
    ]),
  );
  const change = importChange(new Map(), preview.rows, 'student', [], () => id<EnrolmentId>('new'), made);
  return {
    people: change.map((each) =>
      each.kind === 'add' ? { ...each.entry, groups: each.entry.groups.toSorted() } : null,
    ),
    lacking,
  };
}

/** Groups by ids that tell their names. */
const madeSet = (name: string, isExclusive: boolean, groups: readonly string[]): KnownSet => ({
  isExclusive,
  name: 'Set',
  groupOf: new Map(groups.map((group) => [fold(group), id<GroupId>(`${name}: ${group}`)])),
  nameOf: new Map(groups.map((group) => [id<GroupId>(`${name}: ${group}`), group])),
});
/** What the file calls each group: such as differ by case and accents alone, or not at all, carry their numbers. */
const labels: Readonly<Record<string, string>> = {
  s0: 'Crock (1)',
  s4: 'CROCK (5)',
  s5: 'Été (6)',
  s6: 'ete (7)',
  o0: 'Rye (1) (1)',
  o2: 'Rye (3)',
  o4: 'Rye (1) (5)',
};
const labelOf = ({ id: groupId, name }: { id: GroupId; name: string }) => labels[groupId] ?? name;
const namedInFile = (entry: RosterEntry) =>
  entry.groups
    .map(
      (group) =>
        `${group.setId === set.id ? 'Bench teams (1)' : circles.name}: ${labelOf({ id: group.groupId, name: group.name })}`,
    )
    .toSorted();
const told = (entries: readonly RosterEntry[]) =>
  entries
    .map((entry) => ({ ...entry, groupsInFile: namedInFile(entry) }))
    .map(({ email, name, familyName, reading, number, role, attributes, groupsInFile }) => ({
      email,
      name,
      familyName,
      reading,
      number,
      role,
      attributes,
      isHere: true,
      groups: groupsInFile,
      joinedTo: null,
    }));
const view = (entries: RosterEntry[]): RosterView => ({ entries, sets, attributes: [], syncedAt: null });

const entryWith = (lab: string): RosterEntry => ({
  enrolmentId: id<EnrolmentId>('e'),
  personId: id<PersonId>('p'),
  email: 'noor@quillmere.example',
  name: 'Noor Haddad',
  familyName: 'Haddad',
  reading: null,
  number: 'fe-1',
  role: 'student',
  attributes: { Lab: lab },
  joinedAt: '2026-10-05T09:00:00.000Z',
  leftAt: null,
  lastSeenAt: null,
  hasComeIn: false,
  invitedAt: null,
  groups: [seatIn(set, sure(set.groups[0]))],
});

describe('a class file of our own', () => {
  it('brought into an empty course gives the same people in the same groups', () =>
    fc.assert(
      fc.property(someEntries, (entries) => {
        expect(broughtIn(readTable(strToU8(writeCsv(view(entries))))).people).toEqual(told(entries));
      }),
    ));

  it('as a bundle, too', async () =>
    fc.assert(
      fc.asyncProperty(someEntries, async (entries) => {
        const bytes = writeBundle(course, view(entries), new Date('2026-11-25'));
        expect(isArchive(bytes)).toBe(true);
        // A bundle parts every name in given and family name; where it was not parted it stays whole.
        const expected = told(entries).map((each) => ({
          ...each,
          familyName: each.familyName && each.name.endsWith(` ${each.familyName}`) ? each.familyName : null,
        }));
        const { people, lacking } = broughtIn(await readArchive(bytes));
        expect(people).toEqual(expected);
        // Also the groups that no one is in, in their order.
        expect(lacking).toEqual([
          { set: 'Bench teams (1)', isNew: true, isExclusive: true, groups: set.groups.map(labelOf) },
          { set: 'Reading circles', isNew: true, isExclusive: false, groups: circles.groups.map(labelOf) },
        ]);
      }),
      { numRuns: 40 },
    ));

  it('brought into the course it came from changes nothing', async () =>
    fc.assert(
      fc.asyncProperty(someEntries, async (entries) => {
        const roster = new Map(
          entries.map((entry) => [
            entry.enrolmentId,
            { ...entry, groups: entry.groups.map((group) => group.groupId), isHere: true, joinedTo: null },
          ]),
        );
        const csv = readTable(strToU8(writeCsv(view(entries))));
        const bundle = await readArchive(writeBundle(course, view(entries), new Date('2026-11-25')));
        for (const read of [csv, bundle]) {
          if (!read.ok) throw new Error(read.code);
          const meanings = guessColumns(read.table).map((column) => column.meaning);
          const preview = previewImport(read.table, meanings, roster, 'student', knownHere);
          expect(preview).toMatchObject({ ok: true, missing: [] });
          if (preview.ok) expect(preview.rows.filter((row) => row.kind !== 'unchanged')).toEqual([]);
        }
      }),
      { numRuns: 60 },
    ));

  it('holds no cell that a spreadsheet would run', () => {
    const [line] = writeCsv(view([entryWith('=HYPERLINK("http://x")')]))
      .split('\n')
      .slice(1);
    expect(line).toContain(`"'=HYPERLINK(""http://x"")"`);
  });

  it('leaves out who left, and tells the group in every set', () => {
    const csv = writeCsv(
      view([
        entryWith('some'),
        { ...entryWith('none'), email: 'gone@quillmere.example', leftAt: '2026-11-01T00:00:00.000Z' },
      ]),
    );
    expect(csv).toContain('Group in Bench teams');
    expect(csv).toContain('Crock');
    expect(csv).not.toContain('gone@');
  });

  it('can be looked into by other programs', () => {
    const files = unzipSync(writeBundle(course, view([entryWith('some')]), new Date('2026-11-25')));
    expect(Object.keys(files).sort()).toEqual([
      'academicSessions.csv',
      'classes.csv',
      'courses.csv',
      'enrollments.csv',
      'manifest.csv',
      'orgs.csv',
      'users.csv',
    ]);
    expect(strFromU8(sure(files['manifest.csv']))).toContain('oneroster.version,1.1');
    expect(strFromU8(sure(files['enrollments.csv'])).trim().split('\n')).toHaveLength(3); // heading, the course, the group
    expect(strFromU8(sure(files['classes.csv'])).trim().split('\n')).toHaveLength(16); // heading, the course, every group
  });
});
