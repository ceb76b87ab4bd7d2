import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import {
  guessColumns,
  importChange,
  lackingGroups,
  previewImport,
  readTable,
  sayLacking,
  sayRowProblem,
} from './index.js';
import type { KnownSet, KnownSets, RosterEntry } from './index.js';
import { groupHeading, joinNames, setOfHeading, splitNames } from './places.js';

const group = (name: string) => name as GroupId;
const aSet = (isExclusive: boolean, ...names: string[]): KnownSet => ({
  isExclusive,
  name: 'Set',
  groupOf: new Map(names.map((name) => [name.toLowerCase(), group(name)])),
  nameOf: new Map(names.map((name) => [group(name), name])),
});
const noor: RosterEntry = {
  email: 'noor@b.example',
  name: 'Noor',
  familyName: null,
  reading: null,
  number: null,
  role: 'student',
  attributes: {},
  isHere: true,
  groups: [group('Crock'), group('Rye')],
  joinedTo: null,
};
const roster = new Map([['noor' as EnrolmentId, noor]]);

function read(csv: string, sets: KnownSets = new Map()) {
  const file = readTable(new TextEncoder().encode(csv));
  if (!file.ok) throw new Error(file.code);
  const meanings = guessColumns(file.table).map((column) => column.meaning);
  const preview = previewImport(file.table, meanings, roster, 'student', sets);
  if (!preview.ok) throw new Error(preview.code);
  return { rows: preview.rows, lacking: lackingGroups(file.table, meanings, preview.rows, sets) };
}

describe('several names in one cell', () => {
  it('are read as they were written', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.stringMatching(/^[a; ]{1,5}$/).filter((name) => name.trim() === name && name !== ''),
        ),
        (names) => {
          expect(splitNames(joinNames(names))).toEqual(names);
        },
      ),
    ));

  it('are parted by semicolons however someone sets them', () => {
    expect(splitNames(' Crock;Rye ;; ale; ')).toEqual(['Crock', 'Rye ; ale']);
    expect(splitNames('')).toEqual([]);
  });
});

describe('a column of groups', () => {
  it('tells its set by its heading, our own or anybody else’s', () => {
    for (const set of [
      { name: 'Bench teams', isExclusive: true },
      { name: 'Groups in labs', isExclusive: false },
    ])
      expect(setOfHeading(groupHeading(set))).toEqual(set);
    expect(setOfHeading('Lab bench')).toEqual({ name: 'Lab bench', isExclusive: true });
  });

  it('shows where someone is to sit instead, and leaves other sets and empty cells alone', () => {
    const sets = new Map([
      ['bench teams', aSet(true, 'Crock', 'Weir')],
      ['circles', aSet(false, 'Rye', 'Malt')],
    ]);
    const { rows, lacking } = read(
      'Email,Name,Group in Bench teams,Groups in Circles\nnoor@b.example,Noor,WEIR,\n',
      sets,
    );
    expect(rows).toMatchObject([
      { kind: 'changed', changes: [{ field: 'Bench teams', from: 'Crock', to: 'WEIR' }] },
    ]);
    expect(lacking).toEqual([]);
    const [change] = importChange(roster, rows, 'student', [], () => 'x' as EnrolmentId, sets);
    expect(change).toMatchObject({ from: { groups: ['Crock', 'Rye'] }, to: { groups: ['Rye', 'Weir'] } });
    expect(
      sure(
        read('Email,Name,Group in Bench teams,Groups in Circles\nnoor@b.example,Noor,crock,Rye\n', sets)
          .rows[0],
      ).kind,
    ).toBe('unchanged');
  });

  it('may name several groups only where one may be in several', () => {
    const sets = new Map([['circles', aSet(false, 'Rye')]]);
    const csv =
      'Email,Name,Group in Bench teams,Groups in Circles\nnoor@b.example,Noor,,Rye; Malt\nben@b.example,Ben,Crock; Weir,\n';
    const { rows, lacking } = read(csv, sets);
    expect(rows[0]).toMatchObject({
      kind: 'changed',
      changes: [{ field: 'Circles', from: 'Rye', to: 'Rye, Malt' }],
    });
    const second = sure(rows[1]);
    const [problem] = second.kind === 'problem' ? second.problems : [];
    expect(sayRowProblem(sure(problem))).toBe(
      'Several groups of Bench teams: Crock and Weir. Keep the one in which this person is to sit.',
    );
    expect(lacking).toEqual([{ set: 'Circles', isNew: false, isExclusive: false, groups: ['Malt'] }]);
  });

  it('and one of sections may not name two groups of the same set', () => {
    const labs = aSet(true, 'Tue', 'Thu');
    const sets = new Map([
      ['', labs],
      ['labs', labs],
    ]);
    const table = {
      headings: ['Email', 'Name', 'Lab', 'Group in Labs'],
      hasHeader: true,
      encoding: 'UTF-8',
      delimiter: ',',
    } as const;
    const rows = [
      { line: 2, cells: ['a@b.example', 'A', 'Tue', 'Thu'] },
      { line: 3, cells: ['c@b.example', 'C', 'Tue', 'tue'] },
    ];
    const preview = previewImport(
      { ...table, rows },
      ['email', 'name', 'section', 'group'],
      roster,
      'student',
      sets,
    );
    expect(preview.ok && preview.rows.map((row) => row.kind)).toEqual(['problem', 'new']);
  });

  it('gives a new set its groups in the order in which people count', () => {
    const { lacking } = read(
      'Email,Name,Group in Teams\na@b.example,A,Team 10\nb@b.example,B,Team 9\nc@b.example,C,team 10\n',
    );
    expect(lacking).toEqual([
      { set: 'Teams', isNew: true, isExclusive: true, groups: ['Team 9', 'team 10'] },
    ]);
    expect(sayLacking(lacking)).toBeNull();
  });

  it('that was taken for groups by mistake is found out', () => {
    const rows = Array.from({ length: 501 }, (_, at) => `p${at}@b.example,P,note ${at}`).join('\n');
    expect(sayLacking(read(`Email,Name,Group in Notes\n${rows}\n`).lacking)).toContain(
      '501 new groups; 500 are the most',
    );
    expect(
      sayLacking(read(`Email,Name,Group in Notes\na@b.example,A,${'x'.repeat(81)}\n`).lacking),
    ).toContain('too long for a group');
    expect(sayLacking(read(`Email,Name,Group in ${'x'.repeat(121)}\na@b.example,A,1\n`).lacking)).toContain(
      'Shorten the heading',
    );
  });
});
