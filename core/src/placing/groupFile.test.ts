import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { readTable } from '../roster/index.js';
import { oneLine } from '../text/index.js';
import { guardFormula } from '../files/index.js';
import { apply, groupFileColumns, groupFileLines, readGroupFile, sayGroupFileProblem } from './index.js';
import type { NamedStudent } from './index.js';

const groups = ['Crock', 'Carboy'].map((name, at) => ({ id: name as GroupId, number: at + 1, name }));
const student = (
  name: string,
  groupId: string | null = null,
  number: string | null = null,
): NamedStudent => ({
  enrolmentId: name as EnrolmentId,
  name,
  email: `${name.toLowerCase().replace(' ', '.')}@b.example`,
  number,
  seats: groupId === null ? [] : [{ groupId: groupId as GroupId, isLeader: false }],
});
const read = (csv: string, students: NamedStudent[], isExclusive = true) => {
  const table = readTable(new Uint8Array(Buffer.from(csv)));
  if (!table.ok) throw new Error(table.code);
  return readGroupFile(table.table, students, groups, isExclusive);
};

const csvLine = (cells: readonly string[]) =>
  cells.map((cell) => `"${cell.replaceAll('"', '""')}"`).join(',');

describe('a file of groups', () => {
  it('places, moves and takes out by address, number or name', () => {
    const students = [
      student('Ada'),
      student('Ben', 'Crock', 'n7'),
      student('Cho', 'Carboy'),
      student('Dia', 'Crock'),
    ];
    const file = read(
      'E-mail;Number;Name;Group\nADA@b.example;;;carboy\n;n7;;2\n;;cho;\n;;Dia;1\n',
      students,
    );
    expect(file).toEqual({
      ok: true,
      lacking: [],
      moves: [
        { student: 'Ada', from: null, to: 'Carboy' },
        { student: 'Ben', from: 'Crock', to: 'Carboy' },
        { student: 'Cho', from: 'Carboy', to: null },
      ],
      same: 1,
      problems: [],
    });
  });

  it('says what is wrong with a line, and goes on', () => {
    const students = [
      student('Ada'),
      student('Sam Ek', null, 'n1'),
      { ...student('Sam Ek'), enrolmentId: 'other' as EnrolmentId, email: 's@b.example' },
    ];
    const file = read(
      'Name,Group\nAda,Crock\nAda,Carboy\nZed,Crock\nSam Ek,Crock\nAda,Vat\n,Crock\n',
      students,
    );
    if (!file.ok) throw new Error(file.code);
    expect(file.moves).toHaveLength(1);
    expect(file.problems.map(({ line, problem }) => [line, problem.code])).toEqual([
      [3, 'twice'],
      [4, 'unknown-person'],
      [5, 'several-of-that-name'],
      [6, 'twice'],
      [7, 'nobody-named'],
    ]);
    expect(read('Name,Group\nAda,Vat\n', students)).toMatchObject({
      problems: [{ problem: { code: 'unknown-group', value: 'Vat' } }],
    });
    for (const { problem } of file.problems) expect(sayGroupFileProblem(problem)).toMatch(/\.$/);
  });

  it('of our own gives everyone the places that they had, whatever the groups are called', () => {
    const aName = fc.oneof(
      fc.constantFrom(
        '1',
        '2',
        '3',
        'Crock',
        'CROCK',
        'Crock (1)',
        'Été',
        'ete',
        '=SET()',
        "'=x",
        'a;b',
        '"q"',
      ),
      fc
        .string({ maxLength: 5 })
        .map(oneLine)
        .filter((name) => name !== ''),
    );
    fc.assert(
      fc.property(
        fc.array(aName, { minLength: 1, maxLength: 7 }),
        aName,
        fc.array(fc.array(fc.nat(6), { maxLength: 3 }), { minLength: 1, maxLength: 8 }),
        fc.boolean(),
        (names, setName, wanted, isExclusive) => {
          const own = names.map((name, at) => ({ id: `g${at}` as GroupId, number: at + 1, name }));
          const students = wanted.map((places, at): NamedStudent => ({
            ...student(`Student ${at}`),
            seats: [...new Set(places.map((place) => place % own.length))]
              .slice(0, isExclusive ? 1 : 3)
              .map((place) => ({ groupId: sure(own[place]).id, isLeader: false })),
          }));
          const lines = groupFileLines(setName, own, students).map((cells) => cells.map(guardFormula));
          const table = readTable(new Uint8Array(Buffer.from(lines.map(csvLine).join('\n'))));
          if (!table.ok) throw new Error(table.code);
          expect(readGroupFile(table.table, students, own, isExclusive)).toMatchObject({
            ok: true,
            moves: [],
            same: students.length,
            problems: [],
          });
          const nowhere = students.map((each) => ({ ...each, seats: [] }));
          const file = readGroupFile(table.table, nowhere, own, isExclusive);
          if (!file.ok) throw new Error(file.code);
          const placed = (who: EnrolmentId) =>
            file.moves.flatMap((move) => (move.student === who ? [move.to] : [])).toSorted();
          for (const { enrolmentId, seats } of students)
            expect(placed(enrolmentId)).toEqual(seats.map((seat) => seat.groupId).toSorted());
        },
      ),
    );
  });

  it('names all groups of a person where one may be in several', () => {
    const ada = {
      ...student('Ada', 'Crock'),
      seats: ['Crock', 'Vat'].map((groupId) => ({
        groupId: groupId as GroupId,
        isLeader: groupId === 'Vat',
      })),
    };
    const file = read('Name,Group\nAda,Carboy\nAda,Crock\nBen,1\nBen,1\n', [ada, student('Ben')], false);
    expect(file).toEqual({
      ok: true,
      lacking: [],
      moves: [
        { student: 'Ada', from: 'Vat', to: 'Carboy', leads: { from: true, to: false } },
        { student: 'Ben', from: null, to: 'Crock' },
      ],
      same: 0,
      problems: [],
    });
  });

  it('needs a column for the person and one for the group', () => {
    expect(read('Name,Colour\nAda,red\n', [student('Ada')])).toEqual({ ok: false, code: 'no-group-column' });
    expect(read('Role,Group\nstudent,Crock\n', [student('Ada')])).toEqual({
      ok: false,
      code: 'no-person-column',
    });
  });

  it('is read by columns that were chosen, and tells which groups are lacking', () => {
    const table = {
      headings: ['Group', 'Who', 'Colour'],
      rows: [
        { line: 2, cells: ['Crock', 'n7', 'carboy'] },
        { line: 3, cells: ['', 'ada@b.example', 'Vat'] },
        { line: 4, cells: ['', 'Cho', 'VAT'] },
        { line: 5, cells: ['', 'Zed', 'Vat'] },
      ],
    };
    const students = [student('Ada'), student('Ben', null, 'n7'), student('Cho')];
    expect(readGroupFile(table, students, groups)).toEqual({ ok: false, code: 'no-person-column' });
    expect(groupFileColumns(table.headings)).toEqual({ person: null, group: 0 });
    expect(readGroupFile(table, students, groups, true, { person: 1, group: 2 })).toMatchObject({
      moves: [{ student: 'Ben', from: null, to: 'Carboy' }],
      lacking: ['Vat'],
      problems: [{ line: 3 }, { line: 4 }, { line: 5, problem: { code: 'unknown-person' } }],
    });
  });

  it('takes the heading that says most, whatever stands first', () => {
    expect(groupFileColumns(['Section', 'Group', 'Name', 'E-mail'])).toEqual({ person: 3, group: 1 });
  });

  it('gives moves that fit the Board, and nothing more to do when read again', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(null, 'Crock', 'Carboy'), fc.constantFrom('', 'Crock', '2')), {
          minLength: 1,
          maxLength: 12,
        }),
        (seats) => {
          const students = seats.map(([at], index) => student(`S${index}`, at));
          const csv = `Name,Group\n${seats.map(([, to], index) => `S${index},${to}`).join('\n')}\n`;
          const first = read(csv, students);
          if (!first.ok) throw new Error(first.code);
          const placed = apply(
            new Map(students.map((each) => [each.enrolmentId, each.seats])),
            { moves: first.moves },
            true,
          );
          if (!placed.ok) throw new Error('the moves fit');
          const again = read(
            csv,
            students.map((each) => ({ ...each, seats: sure(placed.placement.get(each.enrolmentId)) })),
          );
          expect(again).toEqual({ ok: true, moves: [], same: seats.length, problems: [], lacking: [] });
        },
      ),
    ));
});
