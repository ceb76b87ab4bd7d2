import { sure } from '@jigsaw/core/lists';
import { aWorkbook } from '../test/aWorkbook.js';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
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
  groups: groupsOf('s', 'Crock', 'Weir; below', '10', '9'),
};
const circles = {
  id: id<GroupSetId>('o'),
  name: 'Reading circles',
  isExclusive: false,
  groups: groupsOf('o', 'Rye', ';', 'Rye', 'Malt;; ale'),
};
const sets = [set, circles];

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
      seat: fc.option(fc.constantFrom(...set.groups)),
      circles: fc.subarray(circles.groups),
    }),
    { selector: (each) => each.number, minLength: 1, maxLength: 12 },
  )
  .map((rows) =>
    rows.map(({ given, family, reading, number, role, lab, free, seat, circles: own }, at): RosterEntry => ({
      enrolmentId: id<EnrolmentId>(`e${at}`),
      personId: id<PersonId>(`p${at}`),
      email: `p${at}@quillmere.example`,
      name: tidyText(family ? `${given} ${family}` : given),
      familyName: family && tidyText(family),
      reading: reading && tidyText(reading),
      number: `fe-${number}`,
      role: role,
      attributes: { ...(lab && { Lab: lab }), ...(free && { 'Free days': free }) },
      joinedAt: '2026-10-05T09:00:00.000Z',
      leftAt: null,
      lastSeenAt: null,
      hasComeIn: false,
      invitedAt: null,
      groups:
        role === 'student'
          ? [...(seat ? [seatIn(set, seat)] : []), ...own.map((group) => seatIn(circles, group))]
          : [],
    })),
  );

/** What an empty course holds after this table was brought in with its columns as guessed. */
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
  groupOf: new Map(groups.map((group) => [fold(group), id<GroupId>(`${name}: ${group}`)])),
  nameOf: new Map(groups.map((group) => [id<GroupId>(`${name}: ${group}`), group])),
});
/** Two groups of one name are told apart by their numbers in a file. */
const namedInFile = (entry: RosterEntry) =>
  entry.groups
    .map(
      (group) =>
        `${group.setId === set.id ? set.name : circles.name}: ${group.name}${group.name === 'Rye' ? ` (${group.number})` : ''}`,
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
        // Also the groups that nobody is in, in their order.
        expect(lacking).toEqual([
          { set: 'Bench teams', isNew: true, isExclusive: true, groups: ['Crock', 'Weir; below', '10', '9'] },
          {
            set: 'Reading circles',
            isNew: true,
            isExclusive: false,
            groups: ['Rye (1)', ';', 'Rye (3)', 'Malt;; ale'],
          },
        ]);
      }),
      { numRuns: 40 },
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
});

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

describe('an archive', () => {
  const code = async (files: Record<string, string | Uint8Array>) => {
    const read = await readArchive(
      zipSync(
        Object.fromEntries(
          Object.entries(files).map(([name, text]) => [
            name,
            typeof text === 'string' ? strToU8(text) : text,
          ]),
        ),
      ),
    );
    return read.ok ? 'ok' : read.code;
  };

  it('that unpacks to too much is not unpacked', async () => {
    const bomb = zipSync({ 'users.csv': new Uint8Array(60_000_000) });
    expect(bomb.length).toBeLessThan(200_000);
    expect(await readArchive(bomb)).toEqual({ ok: false, code: 'archive-too-large' });
    expect(await code(Object.fromEntries(Array.from({ length: 2001 }, (_, at) => [`${at}.csv`, ''])))).toBe(
      'archive-too-large',
    );
  });

  it('that lies about its size is not believed', async () => {
    const bomb = zipSync({ 'users.csv': new Uint8Array(60_000_000) });
    // The size that is written in the local header and in the directory.
    for (let at = 0; at < bomb.length - 4; at += 1) {
      const size = new DataView(bomb.buffer, bomb.byteOffset + at, 4);
      if (size.getUint32(0, true) === 60_000_000) size.setUint32(0, 1000, true);
    }
    const before = process.memoryUsage().arrayBuffers;
    const read = await readArchive(bomb);
    expect(read.ok).toBe(false);
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(20_000_000);
  });

  it('is told apart from a class list, a damaged one, and one without people', async () => {
    expect(await code({ 'photo.jpg': 'x' })).toBe('archive-without-people');
    expect(await code({ 'users.csv': 'sourcedId,email\n' })).toBe('header-only');
    expect(await code({ 'xl/workbook.xml': 'no xml' })).toBe('archive-broken');
    expect(await readArchive(strToU8('PK\u0003\u0004 and then nothing'))).toEqual({
      ok: false,
      code: 'archive-broken',
    });
  });

  it('of release 1.2 has its roles in a file of their own, and may lie in a folder', async () => {
    const read = await readArchive(
      zipSync({
        'export/users.csv': strToU8(
          'sourcedId,status,givenName,familyName,email\nu1,active,Noor,Haddad,noor@b.example\nu2,tobedeleted,Old,One,old@b.example\nu3,active,Jo,Ek,jo@b.example\n',
        ),
        'export/roles.csv': strToU8('sourcedId,userSourcedId,role\nr1,u1,teacher\n'),
        'export/classes.csv': strToU8('sourcedId,title\nc1,Tuesday lab\nc2,Thursday lab\n'),
        'export/enrollments.csv': strToU8(
          'sourcedId,classSourcedId,userSourcedId,role\n1,c1,u1,\n2,c2,u3,student\n',
        ),
      }),
    );
    if (!read.ok) throw new Error(read.code);
    expect(read.table.headings).toEqual([
      'E-mail',
      'Given name',
      'Family name',
      'Latin name',
      'Number',
      'Role',
      'Section',
    ]);
    expect(read.table.rows.map((row) => [row.line, row.cells[0], row.cells[5], row.cells[6]])).toEqual([
      [2, 'noor@b.example', 'teacher', 'Tuesday lab'],
      [4, 'jo@b.example', 'student', 'Thursday lab'],
    ]);
  });

  it('that is a spreadsheet gives its first sheet with anything in it, lines as in the sheet', async () => {
    const read = await readArchive(aWorkbook());
    if (!read.ok) throw new Error(read.code);
    expect(read.table).toMatchObject({
      headings: ['Email', 'Name', 'No'],
      delimiter: 'spreadsheet',
      rows: [{ line: 3, cells: ['ann@b.example', 'Ann 한', '42'] }],
    });
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
    expect(strFromU8(sure(files['classes.csv'])).trim().split('\n')).toHaveLength(10); // heading, the course, every group
  });
});
