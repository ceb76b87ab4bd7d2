import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { sure } from '../lists/index.js';
import { guessColumns, readPaste, sayUnreadablePaste } from './index.js';

describe('a pasted list', () => {
  it.each([
    ['', { ok: false, code: 'empty' }],
    [' \n \n', { ok: false, code: 'empty' }],
    ['a\n'.repeat(20_001), { ok: false, code: 'too-many-rows' }],
    [`a@b.example\n${'x'.repeat(2001)}`, { ok: false, code: 'line-too-long', line: 2 }],
    [`"${' '.repeat(900_000)}<a@b.example>`, { ok: false, code: 'line-too-long', line: 1 }],
  ])('is refused where it is none', (text, refusal) => expect(readPaste(text)).toEqual(refusal));

  it.each([
    ['<a@b.example>', ['a@b.example', 'A']],
    ['Ek <a@b.example>;', ['a@b.example', 'Ek']],
    ['Ek <>, a@b.example', ['a@b.example', 'Ek']],
    [', ; Ek ;,a@b.example , ', ['a@b.example', 'Ek']],
  ])('reads %j', (line, cells) => {
    const paste = readPaste(line);
    expect(paste.ok && paste.table.rows[0]?.cells).toEqual(cells);
  });

  it('reads an address, or a name and an address, a line', () => {
    const paste = readPaste(
      'ada.okafor@quillmere.example\n\nBen Ek <ben@quillmere.example>\nCho Min, cho@quillmere.example\ndia@quillmere.example\tDia Roy\n"Ek, Eli" <eli@quillmere.example>\nno address here',
    );
    expect(paste.ok && paste.table.rows).toEqual([
      { line: 1, cells: ['ada.okafor@quillmere.example', 'Ada Okafor'] },
      { line: 3, cells: ['ben@quillmere.example', 'Ben Ek'] },
      { line: 4, cells: ['cho@quillmere.example', 'Cho Min'] },
      { line: 5, cells: ['dia@quillmere.example', 'Dia Roy'] },
      { line: 6, cells: ['eli@quillmere.example', 'Ek, Eli'] },
      { line: 7, cells: ['', 'no address here'] },
    ]);
  });
});

const people = (text: string) => {
  const paste = readPaste(text);
  if (!paste.ok) throw new Error(sayUnreadablePaste(paste));
  return paste.table.rows.map((row) => row.cells);
};
const skipped = (text: string) => {
  const paste = readPaste(text);
  return paste.ok ? sure(paste.table.place).skipped : [];
};
const ada = ['ada@b.example', 'Ada Okafor'];
const ben = ['ben@b.example', 'Ben Ek'];

describe('what people have at hand', () => {
  it.each([
    ['a numbered list', '1. Ada Okafor <ada@b.example>\n2. Ben Ek <ben@b.example>'],
    ['numbers in brackets, without blanks', '1)Ada Okafor ada@b.example\n(2) Ben Ek ben@b.example'],
    ['numbers and tabs', '1\tAda Okafor\tada@b.example\n2\tBen Ek\tben@b.example'],
    ['bullets', '• Ada Okafor (ada@b.example)\n- Ben Ek (ben@b.example)'],
    ['dashes between', 'Ada Okafor – ada@b.example\nBen Ek — ben@b.example'],
    ['quote marks', '"Ada Okafor" <ada@b.example>,\n\'Ben Ek\' <ben@b.example>'],
    ['quoted in a mail', '> Ada Okafor <ada@b.example>\n> > Ben Ek <ben@b.example>'],
    ['links', 'Ada Okafor <mailto:ada@b.example>\nBen Ek mailto:ben@b.example'],
    ['the addressees of a mail', 'To: Ada Okafor <ada@b.example>; Ben Ek <ben@b.example>'],
    ['several on a line, addresses first', 'ada@b.example Ada Okafor, ben@b.example Ben Ek'],
    ['an address at the end of a sentence', 'Ada Okafor: ada@b.example.\nBen Ek: ben@b.example.'],
  ])('is read: %s', (_, text) => expect(people(text)).toEqual([ada, ben]));

  it('is numbered by its lines, and where a line holds several by what came before', () => {
    const lines = (text: string) => {
      const paste = readPaste(text);
      return paste.ok ? paste.table.rows.map((row) => row.line) : [];
    };
    expect(lines('ada@b.example\n\nben@b.example')).toEqual([1, 3]);
    expect(lines('ada@b.example, cho@b.example\n\nben@b.example')).toEqual([1, 2, 3]);
  });

  it('leaves out greeting, prose and signature, and says so', () => {
    const mail = [
      'Dear Ilse,',
      'here are the two who joined late.',
      '1. Ada Okafor <ada@b.example>',
      '2. Ben Ek <ben@b.example> (Section 3)',
      'Best wishes',
      '-- ',
      'Registry',
      'registry@b.example',
    ].join('\n');
    expect(people(mail)).toEqual([ada, ben]);
    expect(skipped(mail).map(({ line, because }) => [line, because])).toEqual([
      [1, 'words'],
      [2, 'words'],
      [4, 'beside'],
      [5, 'words'],
      [6, 'signature'],
      [7, 'signature'],
      [8, 'signature'],
    ]);
  });

  it('keeps who has no address in view, and a list under a line of dashes', () => {
    expect(people('Ada Okafor <ada@b.example>\nBen Ek')).toEqual([ada, ['', 'Ben Ek']]);
    expect(people('ada@b.example Ada Okafor\n--\nBen Ek ben@b.example\ncho@b.example')).toHaveLength(3);
    expect(people('ada@b.example Ada Okafor\nfe-0003 Cho Min\nSection 2\nRoom 204')).toEqual([
      ada,
      ['', 'fe-0003 Cho Min'],
    ]);
    expect(people('Ada\n1. Ben')).toEqual([
      ['', 'Ada'],
      ['', 'Ben'],
    ]);
  });

  it('takes a word with two @ for one address, to be put right', () => {
    expect(people('Ada Okafor ada@b@c.example')).toEqual([['ada@b@c.example', 'Ada Okafor']]);
  });

  it('keeps an address that begins with a number, and what a name says in brackets', () => {
    expect(people('1.ada@b.example')).toEqual([['1.ada@b.example', '1 Ada']]);
    expect(people('Ben Ek (he) <ben@b.example>')).toEqual([['ben@b.example', 'Ben Ek (he)']]);
  });

  it('keeps an initial, which is no letter of a list', () => {
    expect(people('A. Lund <a@b.example>')).toEqual([['a@b.example', 'A. Lund']]);
    expect(people('a. Ada Lund <a@b.example>\nB) Ben Ek <b@b.example>')).toEqual([
      ['a@b.example', 'Ada Lund'],
      ['b@b.example', 'Ben Ek'],
    ]);
  });

  it('reads cells of a spreadsheet and lines of a file by their columns', () => {
    const guessed = (text: string) => {
      const paste = readPaste(text);
      if (!paste.ok) throw new Error(paste.code);
      expect(paste.meanings).toBeNull();
      return guessColumns(paste.table).map((column) => column.meaning);
    };
    expect(guessed('Name\tEmail\tLab\nAda Okafor\tada@b.example\tTue')).toEqual([
      'name',
      'email',
      'attribute',
    ]);
    expect(guessed('fe-0001\tAda Okafor\tada@b.example\nfe-0002\tBen Ek\tben@b.example')).toEqual([
      'number',
      'name',
      'email',
    ]);
    expect(guessed('Surname,Given name,Email\nEk,Ben,ben@b.example')).toEqual([
      'family-name',
      'given-name',
      'email',
    ]);
  });
});

describe('generated mails', () => {
  const name = fc
    .tuple(
      fc.constantFrom('Ada', 'Ben', 'José', 'Ng', 'O’Neil', 'Anna-Lena', 'A.', 'J. R.'),
      fc.constantFrom('Ek', 'van Dijk', 'Okafor', 'Ó Sé'),
    )
    .map((words) => words.join(' '));
  const marker = fc.constantFrom('', '- ', '• ', '> ', '* ', '[ ] ', '(7) ', '12. ', 'b. ', 'C) ', '(d) ');
  const form = fc.constantFrom<(name: string, address: string) => string>(
    (who, address) => `${who} <${address}>`,
    (who, address) => `"${who}" <${address}>;`,
    (who, address) => `${who} (${address})`,
    (who, address) => `${address} ${who}`,
    (who, address) => `${address}\t${who}`,
    (who, address) => `${who}, ${address}`,
    (who, address) => `${who} – <mailto:${address}>`,
  );
  const prose = fc.constantFrom(
    '',
    'Hello all,',
    'the list as of 3 May:',
    'Thank you!',
    'Section 2',
    '_____',
  );

  it('give everyone once, in order, whatever form each line has', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(marker, form, name, prose), { minLength: 1, maxLength: 20 }),
        fc.boolean(),
        (lines, isSigned) => {
          const all = lines.map(([mark, as, who, before], at) => ({
            text: `${before}\n${mark}${as(who, `p${at}@b.example`)}`,
            cells: [`p${at}@b.example`, who],
          }));
          const text = all.map((line) => line.text).join('\n');
          expect(people(isSigned ? `${text}\n-- \nThe Registry\nregistry@b.example` : text)).toEqual(
            all.map((line) => line.cells),
          );
        },
      ),
    );
  });

  it('give as many on one line', () => {
    fc.assert(
      fc.property(
        fc.array(name, { minLength: 2, maxLength: 50 }),
        fc.constantFrom(', ', '; ', ' '),
        (names, between) => {
          const line = names.map((who, at) => `${who} <p${at}@b.example>`).join(between);
          expect(people(`Cc: ${line}`)).toEqual(names.map((who, at) => [`p${at}@b.example`, who]));
        },
      ),
    );
  });

  it('lose no address of any text', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a@b.example', ' ', ',', '<', '>', '"', '(', '1.', 'Ek', '\n', '-- ', '\t')),
        (parts) => {
          const text = parts.join('');
          const paste = readPaste(text);
          if (!paste.ok) return;
          const seen = [
            ...paste.table.rows.flatMap((row) => row.cells),
            ...sure(paste.table.place).skipped.map((row) => row.text),
            ...paste.table.headings,
          ].join(' ');
          expect(seen.split('@').length).toBeGreaterThanOrEqual(Math.min(text.split('@').length, 2));
        },
      ),
    );
  });

  it('are read to their end whatever they repeat', () => {
    for (const piece of ['a@', 'a@b ', '@', '<', 'a@b.example <'])
      expect(readPaste(`x@y ${piece.repeat(60_000 / piece.length)}`).ok).toBe(true);
  });
});
