import { describe, expect, it } from '@jest/globals';
import * as fc from 'fast-check';
import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';
import type { GroupId } from '../ids/index.js';
import type { Table, TableRow } from '../files/index.js';
import type { KnownSets, Sheet } from './index.js';
import { asTable, guessColumns, readTable, withKnownSets } from './index.js';

const rowsOf = (lines: readonly (readonly string[])[]): TableRow[] =>
  lines.flatMap((cells, at) => (cells.some((cell) => cell !== '') ? [{ line: at + 1, cells }] : []));
const sheet = (name: string, lines: readonly (readonly string[])[]): Sheet => ({ name, rows: rowsOf(lines) });
const book = (...sheets: Sheet[]): Table => tableOf(asTable(sheets, 'UTF-8', 'spreadsheet'));
const text = (content: string): Table => tableOf(readTable(new Uint8Array(Buffer.from(content))));
function tableOf(read: ReturnType<typeof asTable>): Table {
  if (!read.ok) throw new Error(`refused: ${read.code}`);
  return read.table;
}
const meanings = (table: Table, sets: KnownSets = new Map()) =>
  guessColumns(table, sets).map((column) => column.meaning);
const skipped = (table: Table) => sure(table.place).skipped.map(({ line, because }) => `${line} ${because}`);

const group = (name: string) => name as GroupId;
const knownSet = (name: string, ...groups: string[]): KnownSets => {
  const set = {
    name,
    isExclusive: true,
    groupOf: new Map(groups.map((each) => [fold(each), group(each)])),
    nameOf: new Map(groups.map((each) => [group(each), each])),
  };
  return new Map([[fold(name), set]]);
};

describe('class files as registries write them', () => {
  it('1: a cover sheet, a sheet of notes and the class', () => {
    const table = book(
      sheet('Cover', [['Faculty of Food Science'], ['Course', 'FER 220'], ['Contact', 'registry@school.example']]),
      sheet('Class', [['Student no', 'Surname', 'First name', 'Email'], ['0012', 'Ek', 'Ann', 'ann@b.example'], ['0013', 'Lo', 'Bo', 'bo@b.example']]),
      sheet('Notes', [['Bring lab coats']]),
    ); // prettier-ignore
    expect(table.place).toMatchObject({ sheet: 1, headingLine: 1 });
    expect(meanings(table)).toEqual(['number', 'family-name', 'given-name', 'email']);
  });
  it('2: title rows, a blank row and the date of printing above the headings', () => {
    const table = text('Class list autumn 2026\nPrinted 12.10.2026\n\nNo;Name;E-mail\n1;Ann Ek;ann@b.example\n2;Bo Lo;bo@b.example\n'); // prettier-ignore
    expect([table.place?.headingLine, skipped(table)]).toEqual([4, ['1 above-headings', '2 above-headings']]);
    expect(table.rows.map((row) => row.line)).toEqual([5, 6]);
  });
  it('3: merged bands over the headings', () => {
    const table = book(
      sheet('Sheet1', [['Person', '', '', 'Groups', ''], ['Last name', 'First name', 'Mail', 'Section', 'Team'], ['Ek', 'Ann', 'ann@b.example', 'Tue', 'Red'], ['Lo', 'Bo', 'bo@b.example', 'Thu', 'Blue']]),
    ); // prettier-ignore
    expect(table.place?.headingLine).toBe(2);
    expect(meanings(table)).toEqual(['family-name', 'given-name', 'email', 'group', 'group']);
  });
  it('4: a total below and a line that says who printed it', () => {
    const table = text('Name,Email,Credits\nAnn Ek,ann@b.example,6\nBo Lo,bo@b.example,6\nTotal: 2,,12\nEnd of list,,\n'); // prettier-ignore
    expect(skipped(table)).toEqual(['4 total', '5 band']);
    expect(table.rows).toHaveLength(2);
  });
  it('5: the headings again on every printed page', () => {
    const table = text('Name,Email,Year\nAnn Ek,ann@b.example,2\nName,Email,Year\nBo Lo,bo@b.example,3\nPage 2,,\n'); // prettier-ignore
    expect(skipped(table)).toEqual(['3 headings-again', '5 band']);
  });
  it('6: bands between the rows name the tutorial', () => {
    const table = book(
      sheet('A', [['Matrikelnummer', 'Nachname', 'Vorname', 'E-Mail-Adresse'], ['Tutorium 1'], ['0001', 'Ek', 'Ann', 'ann@b.example'], ['Tutorium 2'], ['0002', 'Lo', 'Bo', 'bo@b.example']]),
    ); // prettier-ignore
    expect(skipped(table)).toEqual(['2 band', '4 band']);
    expect(table.rows.map((row) => row.cells[0])).toEqual(['0001', '0002']);
  });
  it('7: German headings with an Übungsgruppe', () =>
    expect(meanings(text('Matr.-Nr.;Zuname;Rufname;Mailadresse;Übungsgruppe\n0071;Ek;Ann;ann@b.example;Ü3\n'))).toEqual(
      ['number', 'family-name', 'given-name', 'email', 'group'],
    )); // prettier-ignore
  it('8: French headings with a groupe de TD', () =>
    expect(meanings(text('N° étudiant;Nom;Prénom;Adresse mél;Groupe de TD\n221;Ek;Ann;ann@b.example;TD2\n'))).toEqual([
      'number', 'family-name', 'given-name', 'email', 'group',
    ])); // prettier-ignore
  it('9: Spanish headings, names in one column', () =>
    expect(meanings(text('Expediente\tApellidos, nombre\tCorreo electrónico\tEquipo\n77\tEk, Ann\tann@b.example\tA\n'))).toEqual(
      ['number', 'name', 'email', 'group'],
    )); // prettier-ignore
  it('10: Portuguese headings with a turma', () =>
    expect(meanings(text('Nº mecanográfico;Nome do aluno;Endereço de email;Turma\n501;Ann Ek;ann@b.example;T1\n'))).toEqual(
      ['number', 'name', 'email', 'group'],
    )); // prettier-ignore
  it('11: Italian headings', () =>
    expect(meanings(text('Matricola;Cognome;Nome;Indirizzo email;Gruppo\n09;Ek;Ann;ann@b.example;B\n'))).toEqual([
      'number', 'family-name', 'given-name', 'email', 'group',
    ])); // prettier-ignore
  it('12: Dutch headings', () =>
    expect(meanings(text('Studentnummer,Achternaam,Roepnaam,E-mailadres,Werkgroep\n9,Ek,Ann,ann@b.example,W1\n'))).toEqual(
      ['number', 'family-name', 'given-name', 'email', 'group'],
    )); // prettier-ignore
  it('13: Polish headings', () =>
    expect(meanings(text('Nr albumu;Nazwisko i imię;Adres e-mail;Grupa\n31;Ek Ann;ann@b.example;G2\n'))).toEqual([
      'number', 'name', 'email', 'group',
    ])); // prettier-ignore
  it('14: headings in no language that is known, under a title', () => {
    const table = text('Kursi 2026,,\nSukunimi X,Sposti X,Ryhma X\nEk,ann@b.example,A\nLo,bo@b.example,B\n');
    expect(table.place?.headingLine).toBe(2);
    expect(meanings(table)[1]).toBe('email');
  });
  it('15: no headings at all', () => {
    const table = text('ann@b.example,Ann Ek\nbo@b.example,Bo Lo\n');
    expect([table.hasHeader, table.rows.length, meanings(table)]).toEqual([false, 2, ['email', 'name']]);
  });
  it('16: a table that begins further right, beside formatted columns', () => {
    const table = book(
      sheet('Class', [['', '', 'Name', 'Email', ''], ['', '', 'Ann Ek', 'ann@b.example', ''], ['', '', 'Bo Lo', 'bo@b.example', '']]),
    ); // prettier-ignore
    expect([table.headings, table.rows[0]?.cells]).toEqual([
      ['Name', 'Email'],
      ['Ann Ek', 'ann@b.example'],
    ]);
  });
  it('17: staff and students on sheets of their own', () => {
    const people = (count: number) =>
      Array.from({ length: count }, (_, n) => [`Person ${n}`, `p${n}@b.example`]);
    const table = book(
      sheet('Staff', [['Name', 'Email'], ...people(2)]),
      sheet('Students', [['Name', 'Email'], ...people(9)]),
    );
    expect(table.place).toMatchObject({ sheet: 1, sheets: [{ name: 'Staff', rows: 3 }, { name: 'Students', rows: 10 }] }); // prettier-ignore
  });
  it('18: the contact of the registry above, with an address of its own', () => {
    const table = text('Registry,registry@school.example,\nTeacher,Dr Ek,\nStudent ID,Full name,Email\n1,Ann Ek,ann@b.example\n2,Bo Lo,bo@b.example\n'); // prettier-ignore
    expect([table.place?.headingLine, table.rows.length]).toEqual([3, 2]);
  });
  it('19: a column called as a set of the course', () => {
    const sets = knownSet('Bench teams', 'Crock', 'Tun');
    const table = text('Name,Email,Bench teams\nAnn Ek,ann@b.example,Crock\n');
    expect(guessColumns(table, sets)[2]).toEqual({ meaning: 'group', sureness: 'sure' });
  });
  it('20: a column of any name whose values are known groups', () => {
    const sets = knownSet('Lab sections', 'Tuesday lab', 'Thursday lab');
    const table = text(
      'Name,Email,slot\nAnn Ek,ann@b.example,Tuesday lab\nBo Lo,bo@b.example,thursday lab\n',
    );
    const columns = meanings(table, sets);
    expect(columns[2]).toBe('group');
    expect(withKnownSets(table, columns, sets).headings[2]).toBe('Group in Lab sections');
  });
});

describe('a faulty row stays in view', () => {
  it('of which only the name is left', () => {
    const table = text('Name,Email,Year\nAnn Ek,ann@b.example,2\nBo Lo,,\n');
    expect([table.rows.length, skipped(table)]).toEqual([2, []]);
  });
  it('and what was chosen is taken as it is', () => {
    const bytes = new Uint8Array(Buffer.from('Title\nName,Email\nAnn Ek,ann@b.example\n'));
    const read = (headingLine: number) => tableOf(readTable(bytes, null, { sheet: null, headingLine }));
    expect([read(0).hasHeader, read(0).rows.length]).toEqual([false, 3]);
    expect(read(1).headings).toEqual(['Title']);
  });
});

describe('generated workbooks', () => {
  const word = fc.constantFrom('Autumn', 'Chemistry', 'Room 4', '2026', 'Dr Ek', 'Faculty', 'Draft 2');
  const headings = fc.constantFrom(
    ['Name', 'Email', 'Group'],
    ['Matrikelnummer', 'Nachname', 'Vorname', 'E-Mail'],
    ['Email', 'Surname', 'First name', 'Team', 'Timetable'],
  );
  it('have their people found, whatever stands above, between and below, and on other sheets', () => {
    fc.assert(
      fc.property(
        headings,
        fc.array(word, { maxLength: 6 }),
        fc.integer({ min: 2, max: 30 }),
        fc.array(fc.array(fc.array(word, { maxLength: 4 }), { maxLength: 5 }), { maxLength: 3 }),
        fc.nat(3),
        fc.boolean(),
        (head, titles, count, others, at, hasTotal) => {
          const person = (n: number) =>
            head.map((heading) => (/mail/i.test(heading) ? `p${n}@b.example` : `${heading} ${n}`));
          const lines = [
            ...titles.map((title) => [title, ...head.slice(1).map(() => '')]),
            head,
            ...Array.from({ length: count }, (_, n) => person(n)),
            ...(hasTotal ? [['Total', String(count), ...head.slice(2).map(() => '')]] : []),
          ];
          const sheets = others.map((rows, n) => sheet(`Other ${n}`, rows));
          sheets.splice(Math.min(at, sheets.length), 0, sheet('Class', lines));
          const table = book(...sheets);
          expect(table.headings).toEqual(head);
          expect(table.rows.map((row) => row.cells)).toEqual(
            Array.from({ length: count }, (_, n) => person(n)),
          );
          expect(sure(table.place).skipped).toHaveLength(titles.length + (hasTotal ? 1 : 0));
        },
      ),
    );
  });
});
