import { describe, expect, it } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import { aWorkbook, workbookOf } from '../test/aWorkbook.js';
import { readArchive } from './archive.js';

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

  it('finds the class behind a cover sheet, under titles and merged bands, with the zeros of its numbers', async () => {
    const bytes = workbookOf(
      {
        Cover: [['Faculty of Food Science'], ['Course', 'FER 220']],
        Class: [
          ['Class list'],
          [],
          ['Person', '', '', 'Groups'],
          ['Matriculation number', 'Name', 'Email', 'Tutorial'],
          [{ padded: 12 }, 'Ann Ek', 'ann@b.example', 'T1'],
          [{ padded: 12345678 }, 'Bo Lo', 'bo@b.example', 'T2'],
          ['Total', 2],
        ],
      },
      { Class: ['A1:D1', 'A3:C3'] },
    );
    const read = await readArchive(bytes);
    if (!read.ok) throw new Error(read.code);
    expect(read.table).toMatchObject({
      headings: ['Matriculation number', 'Name', 'Email', 'Tutorial'],
      place: { sheet: 1, headingLine: 4 },
    });
    expect(read.table.rows.map(({ line, cells }) => [line, cells[0]])).toEqual([
      [5, '00000012'],
      [6, '12345678'],
    ]);
    const chosen = await readArchive(bytes, { sheet: 0, headingLine: 0 });
    expect(chosen.ok && chosen.table.rows).toHaveLength(2);
  });
});
