import { sure } from '../lists/index.js';
import type { ColumnMeaning } from './headings.js';
import type { Table } from '../files/index.js';

export interface Paste {
  readonly table: Table;
  readonly meanings: readonly ColumnMeaning[];
}

/** One person a line: an address, `Name <address>`, or name and address in either order with a comma, semicolon or tab between.
 * A line without an address stays, so that the preview can name it. */
export function readPaste(text: string): Paste {
  const rows = text.split(/\r\n|\r|\n/).flatMap((raw, at) => {
    const line = raw.trim();
    return line === '' ? [] : [{ line: at + 1, cells: cellsOf(line) }];
  });
  return {
    table: { headings: ['Address', 'Name'], hasHeader: false, rows, encoding: 'UTF-8', delimiter: ',' },
    meanings: ['email', 'name'],
  };
}

function cellsOf(line: string): [address: string, name: string] {
  const [, named, bracketed] = /^"?([^<"]*)"?\s*<([^>]+)>[,;]?$/.exec(line) ?? [];
  if (named !== undefined && bracketed !== undefined)
    return [bracketed.trim(), named.trim() || nameFromAddress(bracketed)];
  const address = line.split(/[\s,;]+/).find((word) => word.includes('@'));
  if (address === undefined) return ['', line];
  const name = line.replace(address, '').replace(/^[\s,;]+|[\s,;]+$/g, '');
  return [address, name || nameFromAddress(address)];
}

/** "ada.okafor@…" is called Ada Okafor until somebody says otherwise. */
export function nameFromAddress(address: string): string {
  const words = sure(address.split('@')[0])
    .split(/[._+-]+/)
    .filter((word) => word !== '');
  return words.map((word) => sure(word[0]).toUpperCase() + word.slice(1)).join(' ');
}
