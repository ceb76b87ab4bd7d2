import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId } from '../ids/index.js';
import { isAddress } from '../course/index.js';
import { sure } from '../lists/index.js';
import { importChange, previewImport, readTable } from './index.js';
import type { ColumnMeaning, RosterEntry } from './index.js';
import type { Table } from '../files/index.js';

type EnrolledPerson = RosterEntry & { enrolmentId: EnrolmentId };

const aTable = (headings: string[], ...rows: string[][]): Table => ({
  headings,
  hasHeader: true,
  encoding: 'UTF-8',
  delimiter: ',',
  rows: rows.map((cells, at) => ({ line: at + 2, cells })),
});
const enrolled = (more: Partial<EnrolledPerson> = {}): EnrolledPerson => ({
  enrolmentId: 'e1' as EnrolmentId,
  email: 'noor@quillmere.example',
  name: 'Noor Haddad',
  familyName: 'Haddad',
  reading: null,
  number: 'fe-1',
  attributes: { Lab: 'some' },
  role: 'student',
  isHere: true,
  groups: [],
  joinedTo: null,
  ...more,
});
const rowsOf = (table: Table, meanings: ColumnMeaning[], roster: EnrolledPerson[] = []) => {
  const preview = previewImport(
    table,
    meanings,
    new Map(roster.map(({ enrolmentId, ...entry }) => [enrolmentId, entry])),
    'student',
  );
  if (!preview.ok) throw new Error(preview.code);
  return preview.rows;
};
const problemsIn = (
  row: string[],
  meanings: ColumnMeaning[] = ['email', 'name'],
  roster: EnrolledPerson[] = [],
) => {
  const first = sure(rowsOf(aTable(meanings.map(String), row), meanings, roster)[0]);
  return first.kind === 'problem' ? first.problems.map((problem) => problem.code) : [];
};

describe('the preview of a class file', () => {
  it('tells the new from the changed and the unchanged', () => {
    const table = aTable(
      ['Email', 'First', 'Last', 'Lab'],
      ['NOOR@quillmere.example', 'Noor', 'Haddad', 'some'],
      ['jo@quillmere.example', 'Jo', 'Ek', 'none'],
    );
    const meanings: ColumnMeaning[] = ['email', 'given-name', 'family-name', 'attribute'];
    expect(rowsOf(table, meanings, [enrolled()]).map((row) => row.kind)).toEqual(['unchanged', 'new']);
    const [changed] = rowsOf(table, meanings, [enrolled({ attributes: { Lab: 'none', Diet: 'vegan' } })]);
    expect(changed).toMatchObject({
      kind: 'changed',
      changes: [{ field: 'Lab', from: 'none', to: 'some' }],
      person: { attributes: { Lab: 'some', Diet: 'vegan' } },
    });
  });

  it('does not take away what the file leaves empty', () =>
    expect(
      sure(
        rowsOf(
          aTable(['Email', 'Name', 'No', 'Lab'], ['noor@quillmere.example', 'Noor Haddad', '', '']),
          ['email', 'name', 'number', 'attribute'],
          [enrolled()],
        )[0],
      ).kind,
    ).toBe('unchanged'));

  it('says what is wrong with a row', () => {
    expect(problemsIn(['', 'Ann'])).toEqual(['no-address']);
    expect(problemsIn(['ann at home', 'Ann'])).toEqual(['bad-address']);
    expect(problemsIn(['ann@home.example', ''])).toEqual(['no-name']);
    expect(problemsIn(['ann@home.example', 'A'.repeat(201)])).toEqual(['name-too-long']);
    expect(problemsIn(['ann@home.example', '=HYPERLINK("x")'])).toEqual(['looks-like-formula']);
    expect(problemsIn(['ann@home.example'])).toEqual(['too-few-cells']);
    expect(problemsIn(['ann@home.example', 'Ann', 'more'])).toEqual(['too-many-cells']);
    expect(
      problemsIn(['ann@home.example', 'Ann', 'fe-1'], ['email', 'name', 'number'], [enrolled()]),
    ).toEqual(['number-of-another']);
  });

  describe('of someone whose number is known under another address', () => {
    const meanings: ColumnMeaning[] = ['email', 'name', 'number'];
    const row = ['noor@new.example', 'Noor Haddad', 'fe-1'];
    const see = (rows: string[][], newAddresses: number[] = [], roster = [enrolled()]) => {
      const preview = previewImport(
        aTable(['Email', 'Name', 'Number'], ...rows),
        meanings,
        new Map(roster.map(({ enrolmentId, ...entry }) => [enrolmentId, entry])),
        'student',
        new Map(),
        { newAddresses: new Set(newAddresses), newRoles: new Set() },
      );
      if (!preview.ok) throw new Error(preview.code);
      return preview;
    };

    it('asks whether it is them, and never says that they are missing', () => {
      const { rows, missing } = see([row]);
      expect(rows[0]).toMatchObject({
        problems: [{ code: 'number-of-another', mayBeSame: true, isAlike: true }],
      });
      expect(missing).toEqual([]);
      expect(see([['noor@new.example', 'Nora Haddad', 'fe-1']]).rows[0]).toMatchObject({
        problems: [{ mayBeSame: true, isAlike: false }],
      });
    });

    it('gives them the new address once someone says so', () => {
      const { rows, missing } = see([row], [2]);
      expect(rows[0]).toMatchObject({
        kind: 'changed',
        enrolmentId: 'e1',
        hasNewAddress: true,
        changes: [{ field: 'Email', from: 'noor@quillmere.example', to: 'noor@new.example' }],
      });
      expect(missing).toEqual([]);
      const roster = new Map([['e1' as EnrolmentId, enrolled()]]);
      expect(importChange(roster, rows, 'student', [], () => 'new' as EnrolmentId)).toMatchObject([
        { kind: 'set', enrolmentId: 'e1', to: { email: 'noor@new.example' } },
      ]);
    });

    it('does not offer it where their own address, or someone else’s, is in the file', () => {
      const own = ['noor@quillmere.example', 'Noor Haddad', ''];
      const { rows } = see([row, own], [2]);
      expect(rows[0]).toMatchObject({ problems: [{ code: 'number-of-another', mayBeSame: false }] });
      const other = enrolled({ enrolmentId: 'e2' as EnrolmentId, email: 'noor@new.example', number: 'fe-2' });
      expect(see([row], [2], [enrolled(), other]).rows[0]).toMatchObject({
        problems: [{ code: 'number-of-another', mayBeSame: false }],
      });
    });

    it('says of a second row with the number that it is the same', () => {
      const again = ['noor@third.example', 'Noor Haddad', 'fe-1'];
      const { rows } = see([row, again], [2, 3]);
      expect(rows.map((each) => each.kind)).toEqual(['changed', 'problem']);
    });
  });

  it('names the line that has the address already', () => {
    const rows = rowsOf(aTable(['Email', 'Name'], ['a@b.example', 'Ann'], ['A@B.example', 'Anne']), [
      'email',
      'name',
    ]);
    expect(rows[1]).toMatchObject({
      line: 3,
      kind: 'problem',
      problems: [{ code: 'same-address-as-line', line: 2 }],
    });
  });

  it('keeps a formula in an attribute as text', () =>
    expect(problemsIn(['a@b.example', 'Ann', '=1+1'], ['email', 'name', 'attribute'])).toEqual([]));

  it('asks for an address and a name column, each once', () => {
    const table = aTable(['A', 'B'], ['x', 'y']);
    expect(previewImport(table, ['name', 'attribute'], new Map(), 'student')).toMatchObject({
      code: 'no-address-column',
    });
    expect(previewImport(table, ['email', 'attribute'], new Map(), 'student')).toMatchObject({
      code: 'no-name-column',
    });
    expect(previewImport(table, ['email', 'email'], new Map(), 'student')).toMatchObject({
      code: 'meaning-twice',
    });
    expect(previewImport(table, ['email'], new Map(), 'student')).toMatchObject({
      code: 'columns-do-not-fit',
    });
  });

  it('turns "Family, Given" round and keeps names of every script', () => {
    const [turned, korean] = rowsOf(
      aTable(['Email', 'Name'], ['a@b.example', 'Haddad-Lindqvist, Noor'], ['c@d.example', '한서연']),
      ['email', 'name'],
    );
    expect(turned).toMatchObject({
      person: { name: 'Noor Haddad-Lindqvist', familyName: 'Haddad-Lindqvist' },
    });
    expect(korean).toMatchObject({ person: { name: '한서연', familyName: null } });
  });

  it('finds nothing to change in what it has just brought in', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.stringMatching(/^[a-z]{3,8}$/), { minLength: 1, maxLength: 12 }),
        fc.stringMatching(/^[A-Za-zé ,]{0,6}$/),
        (names, lab) => {
          const csv = `Email,Name,Lab\n${names.map((name) => `${name}@b.example,${name},"${lab}"`).join('\n')}\n`;
          const read = readTable(new Uint8Array(Buffer.from(csv)));
          if (!read.ok) throw new Error(read.code);
          const first = rowsOf(read.table, ['email', 'name', 'attribute']);
          const roster = first.map((row, at) => {
            if (row.kind !== 'new') throw new Error(`line ${row.line} is ${row.kind}`);
            return {
              ...enrolled(row.person as Partial<EnrolledPerson>),
              role: 'student' as const,
              enrolmentId: `e${at}` as EnrolmentId,
            };
          });
          expect(
            rowsOf(read.table, ['email', 'name', 'attribute'], roster).every(
              (row) => row.kind === 'unchanged',
            ),
          ).toBe(true);
        },
      ),
    ));
});

describe('addresses', () => {
  it('takes the usual and refuses the broken', () => {
    expect(['a@b.example', 'ã.b+c@d-e.example', 'x@sub.dom.example'].every(isAddress)).toBe(true);
    expect(
      ['a@b', 'a b@c.example', '@b.example', 'a@@b.example', 'a@b..example', 'a@b.example,'].some(isAddress),
    ).toBe(false);
  });
});
