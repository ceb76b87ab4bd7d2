import { sure } from '../lists/index.js';
import type { ColumnMeaning } from './headings.js';
import type { Table } from '../files/index.js';
import { mostRows } from './readTable.js';

export type Paste =
  | { readonly ok: true; readonly table: Table; readonly meanings: readonly ColumnMeaning[] }
  | { readonly ok: false; readonly code: 'empty' | 'too-many-rows' }
  | { readonly ok: false; readonly code: 'line-too-long'; readonly line: number };

const longestLine = 2_000;

/** One person a line: an address, `Name <address>`, or name and address in either order with a comma, semicolon or tab between.
 * A line without an address stays, so that the preview can name it. */
export function readPaste(text: string): Paste {
  const rows = text.split(/\r\n|\r|\n/).flatMap((raw, at) => {
    const line = raw.trim();
    return line === '' ? [] : [{ line: at + 1, text: line }];
  });
  if (rows.length === 0) return { ok: false, code: 'empty' };
  if (rows.length > mostRows) return { ok: false, code: 'too-many-rows' };
  const tooLong = rows.find((row) => row.text.length > longestLine);
  if (tooLong) return { ok: false, code: 'line-too-long', line: tooLong.line };
  return {
    ok: true,
    table: {
      headings: ['Address', 'Name'],
      hasHeader: false,
      rows: rows.map((row) => ({ line: row.line, cells: cellsOf(row.text) })),
      encoding: 'UTF-8',
      delimiter: ',',
    },
    meanings: ['email', 'name'],
  };
}

// No expression here looks at a sign more than a few times: what is pasted may be a page of blanks.
function cellsOf(line: string): [address: string, name: string] {
  const bracketed = inBrackets(line);
  if (bracketed) return [bracketed.address, bracketed.name || nameFromAddress(bracketed.address)];
  const words = line.split(/[\s,;]+/);
  const address = words.find((word) => word.includes('@'));
  if (address === undefined) return ['', line];
  const name = trimmed(line.replace(address, ''));
  return [address, name || nameFromAddress(address)];
}

/** `Name <address>`, the name perhaps in quotes, perhaps with a comma behind it all. */
function inBrackets(line: string): { address: string; name: string } | null {
  const open = line.indexOf('<');
  const close = line.indexOf('>', open);
  if (open < 0 || close < open + 2 || !['', ',', ';'].includes(line.slice(close + 1).trim())) return null;
  const before = line.slice(0, open).trim();
  const name = before.startsWith('"') ? before.slice(1) : before;
  return {
    address: line.slice(open + 1, close).trim(),
    name: (name.endsWith('"') ? name.slice(0, -1) : name).trim(),
  };
}

const parts = new Set([',', ';', ' ', '\t', '\u00a0']);

function trimmed(text: string): string {
  let from = 0;
  let to = text.length;
  while (from < to && parts.has(sure(text[from]))) from += 1;
  while (to > from && parts.has(sure(text[to - 1]))) to -= 1;
  return text.slice(from, to);
}

/** "ada.okafor@…" is called Ada Okafor until someone says otherwise. */
export function nameFromAddress(address: string): string {
  const words = sure(address.split('@')[0])
    .split(/[._+-]+/)
    .filter((word) => word !== '');
  return words.map((word) => sure(word[0]).toUpperCase() + word.slice(1)).join(' ');
}
