import { describe, expect, it } from '@jest/globals';
import { sure } from '../lists/index.js';
import { guessColumns, readTable } from './index.js';

const utf8 = (text: string) => new Uint8Array(Buffer.from(text, 'utf8'));
const table = (bytes: Uint8Array) => {
  const read = readTable(bytes);
  if (!read.ok) throw new Error(`refused: ${read.code}`);
  return read.table;
};
const refusal = (bytes: Uint8Array) => {
  const read = readTable(bytes);
  return read.ok ? 'read' : read.code;
};

const plain = 'Email,Name\nnoor@quillmere.example,Noor Haddad\njorge@quillmere.example,Jorge Peñaloza\n';

describe('reading a class file', () => {
  it('reads a plain file', () =>
    expect(table(utf8(plain))).toMatchObject({
      headings: ['Email', 'Name'],
      hasHeader: true,
      encoding: 'UTF-8',
      delimiter: ',',
      rows: [
        { line: 2, cells: ['noor@quillmere.example', 'Noor Haddad'] },
        { line: 3, cells: ['jorge@quillmere.example', 'Jorge Peñaloza'] },
      ],
    }));

  it('passes over a byte order mark', () => expect(table(utf8(`\ufeff${plain}`)).headings[0]).toBe('Email'));
  it.each([';', '\t', '|'] as const)('finds out that cells are cut by "%s"', (delimiter) => {
    const read = table(utf8(plain.replaceAll(',', delimiter)));
    expect(read.delimiter).toBe(delimiter);
    expect(sure(read.rows[1]).cells[1]).toBe('Jorge Peñaloza');
  });
  it('finds it out where cells hold line ends and other signs', () => {
    const lines = [
      'Email;Name;Remark',
      ...[1, 2, 3].map((n) => `p${n}@b.example;"Ann, ${n}";"a, b\nc, d, e\nf, g"`),
    ];
    const read = table(utf8(lines.join('\n')));
    expect(read.delimiter).toBe(';');
    expect(read.rows.map((row) => row.cells.length)).toEqual([3, 3, 3]);
  });
  it('cuts by what someone says that it is', () => {
    const bytes = utf8('Email;Name\na@b.example;"Ek, Ann"\n');
    expect(table(bytes).headings).toEqual(['Email', 'Name']);
    const read = readTable(bytes, ',');
    if (!read.ok) throw new Error(read.code);
    expect(read.table).toMatchObject({ headings: ['Email;Name'], delimiter: ',' });
  });
  it('takes a heading with an @ for a heading', () =>
    expect(table(utf8('E-mail,Name,E-mail @ home\na@b.example,Ann,x\n')).hasHeader).toBe(true));
  it('reads Windows-1252', () => {
    const read = table(new Uint8Array(Buffer.from(plain, 'latin1')));
    expect(read.encoding).toBe('Windows-1252');
    expect(sure(read.rows[1]).cells[1]).toBe('Jorge Peñaloza');
  });
  it('reads UTF-16 with and without a mark, in both byte orders', () => {
    const little = Buffer.from(`\ufeff${plain}`, 'utf16le');
    const big = Buffer.from(little).swap16();
    for (const bytes of [little, big, little.subarray(2), big.subarray(2)]) {
      const read = table(new Uint8Array(bytes));
      expect(read.encoding).toBe('UTF-16');
      expect(sure(read.rows[1]).cells[1]).toBe('Jorge Peñaloza');
    }
  });
  it('takes a first row with an address for a person, not for a header', () => {
    const read = table(utf8(plain.split('\n').slice(1).join('\n')));
    expect(read.hasHeader).toBe(false);
    expect(read.headings).toEqual(['Column 1', 'Column 2']);
    expect(read.rows.map((row) => row.line)).toEqual([1, 2]);
    expect(guessColumns(read).map((guess) => guess.meaning)).toEqual(['email', 'name']);
  });
  it('names the line on which a row starts, after quoted newlines and blank lines too', () => {
    const read = table(
      utf8('Email,Name\n"a@b.example","Ann\nLee"\n\n"c@d.example","Cy\r\nDoe\nIII"\r\ne@f.example,Eve\n'),
    );
    expect(read.rows.map((row) => row.line)).toEqual([2, 5, 8]);
    expect(sure(read.rows[0]).cells[1]).toBe('Ann\nLee');
  });
  it('numbers lines the same without a last newline', () =>
    expect(
      table(utf8('Email,Name\na@b.example,Ann\nc@d.example,"Cy\nDoe"')).rows.map((row) => row.line),
    ).toEqual([2, 3]));
  it('keeps ragged rows as they are', () =>
    expect(
      table(utf8('Email,Name,Lab\na@b.example,Ann\nc@d.example,Cy,Tue,extra\n')).rows.map(
        (row) => row.cells.length,
      ),
    ).toEqual([2, 4]));
  it('reads 5,000 lines', () => {
    const rows = Array.from({ length: 5000 }, (_, at) => `s${at}@quillmere.example,Student ${at}`);
    expect(table(utf8(`Email,Name\n${rows.join('\n')}\n`)).rows.at(-1)).toEqual({
      line: 5001,
      cells: ['s4999@quillmere.example', 'Student 4999'],
    });
  });

  it('says what else a file is', () => {
    expect(refusal(new Uint8Array())).toBe('empty');
    expect(refusal(utf8('\n \n'))).toBe('empty');
    expect(refusal(utf8('Email,Name\n'))).toBe('header-only');
    expect(refusal(new Uint8Array([0x50, 0x4b, 3, 4, 0, 0]))).toBe('spreadsheet');
    expect(refusal(utf8('%PDF-1.7 …'))).toBe('pdf');
    expect(refusal(Uint8Array.from({ length: 999 }, (_, at) => (at * 37) % 256))).toBe('binary');
  });
  it('says on which line a quote was never closed', () =>
    expect(readTable(utf8('Email,Name\na@b.example,"Ann"\nc@d.example,"Cy\ne@f.example,Eve\n'))).toEqual({
      ok: false,
      code: 'quote-not-closed',
      line: 3,
    }));

  it('knows headings in several languages and keeps the rest as attributes', () => {
    const read = table(
      utf8('Matrikelnummer;Nachname;Vorname;E-Mail-Adresse;Erfahrung;Bemerkung\n1;Ö;A;a@b.example;keine;x\n'),
    );
    expect(guessColumns(read)).toEqual([
      { meaning: 'number', sureness: 'sure' },
      { meaning: 'family-name', sureness: 'sure' },
      { meaning: 'given-name', sureness: 'sure' },
      { meaning: 'email', sureness: 'sure' },
      { meaning: 'attribute', sureness: 'guess' },
      { meaning: 'left-out', sureness: 'sure' },
    ]);
  });
  it('gives each meaning to one column only', () =>
    expect(
      guessColumns(table(utf8('Email,Mail,Name\na@b.example,c@d.example,Ann\n'))).map(
        (guess) => guess.meaning,
      ),
    ).toEqual(['email', 'attribute', 'name']));
});
