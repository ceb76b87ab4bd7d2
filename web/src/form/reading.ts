import { decode } from '@jigsaw/core/files';
import type { Delimiter } from '@jigsaw/core/files';
import { readTable } from '@jigsaw/core/roster';
import type { ReadTable } from '@jigsaw/core/roster';

const mostRows = 200;

/** What of a file can be shown: words and tables, as text only. */
export type Readable =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'rows'; readonly rows: readonly (readonly string[])[]; readonly more: number }
  | { readonly kind: 'none' };

/** What is done apart from the page. */
export const reading = {
  table: (bytes: Uint8Array<ArrayBuffer>, delimiter: Delimiter | null): ReadTable =>
    readTable(bytes, delimiter),

  readable(bytes: Uint8Array<ArrayBuffer>, isTable: boolean): Readable {
    if (isTable) {
      const read = readTable(bytes);
      if (read.ok) {
        const { table } = read;
        const rows = [...(table.hasHeader ? [table.headings] : []), ...table.rows.map((row) => row.cells)];
        return { kind: 'rows', rows: rows.slice(0, mostRows), more: Math.max(0, rows.length - mostRows) };
      }
    }
    const decoded = decode(bytes);
    return decoded.ok ? { kind: 'text', text: decoded.text } : { kind: 'none' };
  },
};

export type Reading = typeof reading;
