import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { applyChange, importChange, inverseOf, previewImport, readBundle } from './index.js';
import type { ColumnMeaning, KnownSet, RosterEntry } from './index.js';
import type { Table } from '../files/index.js';

const headings = ['Email', 'Name', 'Role', 'Section'];
const meanings: ColumnMeaning[] = ['email', 'name', 'role', 'section'];
const tableOf = (...rows: string[][]): Table => ({
  headings,
  hasHeader: true,
  encoding: 'UTF-8',
  delimiter: ',',
  rows: rows.map((cells, at) => ({ line: at + 2, cells })),
});
const [tue, thu, crock] = ['tue', 'thu', 'crock'] as GroupId[] as [GroupId, GroupId, GroupId];
const sections: KnownSet = {
  isExclusive: true,
  name: 'Set',
  groupOf: new Map([
    ['tuesday lab', tue],
    ['thursday lab', thu],
  ]),
  nameOf: new Map([
    [tue, 'Tuesday lab'],
    [thu, 'Late lab'],
  ]),
};
const sets = new Map([['', sections]]);
const anEntry = (name: string, groups: GroupId[], more: Partial<RosterEntry> = {}): RosterEntry => ({
  email: `${name}@b.example`,
  name,
  familyName: null,
  reading: null,
  number: null,
  role: 'student',
  attributes: {},
  isHere: true,
  groups,
  joinedTo: null,
  ...more,
});
const rosterOf = (...entries: RosterEntry[]) =>
  new Map(entries.map((entry) => [entry.name as EnrolmentId, entry]));
const look = (roster: ReturnType<typeof rosterOf>, ...rows: string[][]) => {
  const preview = previewImport(tableOf(...rows), meanings, roster, 'student', sets);
  if (!preview.ok) throw new Error(preview.code);
  return preview.rows;
};

describe('sections in a class file', () => {
  it('are shown as what changes, under the names they have here, and seat no one twice', () => {
    const roster = rosterOf(anEntry('noor', [thu, crock]), anEntry('jo', [tue]), anEntry('kit', [crock]));
    const rows = look(
      roster,
      ['noor@b.example', 'noor', '', 'TUESDAY LAB'],
      ['jo@b.example', 'jo', '', 'Tuesday lab'],
      ['kit@b.example', 'kit', '', ''],
      ['new@b.example', 'new', '', 'Thursday lab'],
    );
    expect(rows.map((row) => (row.kind === 'changed' ? row.changes : row.kind))).toEqual([
      [{ field: 'Section', from: 'Late lab', to: 'TUESDAY LAB' }],
      'unchanged',
      'unchanged',
      'new',
    ]);
    const change = importChange(roster, rows, 'student', [], () => 'new' as EnrolmentId, sets);
    const changed = applyChange(roster, change);
    if (!changed.ok) throw new Error('refused');
    expect([...changed.roster.values()].map((entry) => entry.groups)).toEqual([
      [crock, tue],
      [tue],
      [crock],
      [thu],
    ]);
  });

  it('seat no staff, and are asked about where there are several', () => {
    const rows = look(
      rosterOf(anEntry('tomas', [], { role: 'assistant' })),
      ['tomas@b.example', 'tomas', '', 'Tuesday lab'],
      ['ada@b.example', 'ada', 'aide', 'Tuesday lab'],
      ['ben@b.example', 'ben', '', 'Tuesday lab; Thursday lab'],
    );
    expect(sure(rows[0]).kind).toBe('unchanged');
    expect(rows[1]).toMatchObject({ kind: 'new', person: { places: [] } });
    expect(rows[2]).toMatchObject({
      kind: 'problem',
      problems: [{ code: 'several-groups', set: null, groups: ['Tuesday lab', 'Thursday lab'] }],
    });
  });

  it('are left as they were when bringing them in is undone', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.constantFrom(null, tue, thu), fc.constantFrom('', 'Tuesday lab', 'Thursday lab')),
          { maxLength: 8 },
        ),
        (seats) => {
          const roster = rosterOf(
            ...seats.map(([seat], at) => anEntry(`p${at}`, seat === null ? [crock] : [seat, crock])),
            anEntry('ilse', [], { role: 'instructor' }),
          );
          const rows = look(
            roster,
            ...seats.map(([, section], at) => [`p${at}@b.example`, `p${at}`, '', section]),
          );
          const change = importChange(roster, rows, 'student', [], () => 'x' as EnrolmentId, sets);
          const after = applyChange(roster, change);
          if (!after.ok) throw new Error('refused');
          for (const entry of after.roster.values())
            expect(entry.groups.filter((group) => group !== crock).length).toBeLessThanOrEqual(1);
          expect(applyChange(after.roster, inverseOf(change))).toEqual({ ok: true, roster });
        },
      ),
    ));
});

describe('the sections of a bundle', () => {
  const csv = (...rows: string[]) => new Uint8Array(Buffer.from(rows.join('\n')));
  it('are told apart where two have one title', () => {
    const read = readBundle(
      new Map([
        [
          'users.csv',
          csv(
            'sourcedId,givenName,familyName,email',
            'u1,Ada,Ek,ada@b.example',
            'u2,Ben,Ek,ben@b.example',
            'u3,Cho,Ek,cho@b.example',
          ),
        ],
        ['classes.csv', csv('sourcedId,title,classCode', 'c1,Lab,T1', 'c2,Lab,T2', 'c3,"Night; day",N')],
        [
          'enrollments.csv',
          csv(
            'sourcedId,classSourcedId,userSourcedId,role',
            'e1,c1,u1,student',
            'e2,c2,u2,student',
            'e3,c3,u3,student',
          ),
        ],
      ]),
    );
    if (!read.ok) throw new Error(read.code);
    expect(read.table.classes).toEqual([
      { set: null, sourceId: 'c1', title: 'Lab (T1)' },
      { set: null, sourceId: 'c2', title: 'Lab (T2)' },
      { set: null, sourceId: 'c3', title: 'Night; day' },
    ]);
    expect(read.table.rows.map((row) => row.cells.at(-1))).toEqual(['Lab (T1)', 'Lab (T2)', 'Night;; day']);
  });
});
