import { meaningOfHeading } from './headings.js';
import type { ColumnMeaning } from './headings.js';
import type { Table } from '../files/index.js';

export interface ColumnGuess {
  readonly meaning: ColumnMeaning;
  /** sure: its heading says so. guess: its values look like it. */
  readonly sureness: 'sure' | 'guess';
}

/** Meanings that any number of columns can have. */
export const oftenMeant: ReadonlySet<ColumnMeaning> = new Set(['attribute', 'group', 'left-out']);

/** A first reading of the columns, for a person to correct. */
export function guessColumns(table: Table): ColumnGuess[] {
  const taken = new Set<ColumnMeaning>();
  const take = (meaning: ColumnMeaning, sureness: ColumnGuess['sureness']): ColumnGuess => {
    if (!oftenMeant.has(meaning)) taken.add(meaning);
    return { meaning, sureness };
  };
  const byHeading = table.headings.map((heading) => {
    const meaning = table.hasHeader ? meaningOfHeading(heading) : null;
    return meaning !== null && !taken.has(meaning) ? take(meaning, 'sure') : null;
  });
  return byHeading.map((sure, at) => {
    if (sure) return sure;
    const values = table.rows
      .slice(0, 200)
      .map((row) => (row.cells[at] ?? '').trim())
      .filter((value) => value !== '');
    const meaning = meaningOfValues(values, table.hasHeader);
    return take(meaning !== 'attribute' && taken.has(meaning) ? 'attribute' : meaning, 'guess');
  });
}

function meaningOfValues(values: readonly string[], hasHeader: boolean): ColumnMeaning {
  if (values.length === 0) return 'left-out';
  const share = (test: (value: string) => boolean) => values.filter(test).length / values.length;
  if (share((value) => /@.+\./.test(value)) > 0.6) return 'email';
  if (hasHeader) return 'attribute';
  const distinct = new Set(values).size / values.length;
  if (distinct > 0.9 && share((value) => /\d{3,}/.test(value)) > 0.8) return 'number';
  if (distinct > 0.7 && share((value) => /^[\p{L}\p{M}'’.,\- ]+$/u.test(value)) > 0.8) return 'name';
  return 'attribute';
}
