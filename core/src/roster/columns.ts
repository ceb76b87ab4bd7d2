import { fold } from '../text/index.js';
import { meaningOfHeading } from './headings.js';
import { groupHeading, isGroupHeading, setKey, setOfHeading } from './places.js';
import type { KnownSet, KnownSets } from './places.js';
import type { ColumnMeaning } from './headings.js';
import type { Table } from '../files/index.js';

export interface ColumnGuess {
  readonly meaning: ColumnMeaning;
  /** sure: its heading says so. guess: its values look like it. */
  readonly sureness: 'sure' | 'guess';
}

/** Meanings that any number of columns can have. */
export const oftenMeant: ReadonlySet<ColumnMeaning> = new Set(['attribute', 'group', 'left-out']);

/** A first reading of the columns, for a person to correct.
 * @param sets those of the course: a column may be called as one of them, or name its groups. */
export function guessColumns(table: Table, sets: KnownSets = new Map()): ColumnGuess[] {
  const taken = new Set<ColumnMeaning>();
  const take = (meaning: ColumnMeaning, sureness: ColumnGuess['sureness']): ColumnGuess => {
    if (!oftenMeant.has(meaning)) taken.add(meaning);
    return { meaning, sureness };
  };
  const byHeading = table.headings.map((heading) => {
    const meaning = table.hasHeader
      ? sets.has(setKey(heading)) && heading !== ''
        ? 'group'
        : meaningOfHeading(heading)
      : null;
    return meaning !== null && !taken.has(meaning) ? take(meaning, 'sure') : null;
  });
  return byHeading.map((sure, at) => {
    if (sure) return sure;
    const values = valuesOf(table, at);
    if (setNaming(values, sets)) return take('group', 'guess');
    const meaning = meaningOfValues(values, table.hasHeader);
    return take(meaning !== 'attribute' && taken.has(meaning) ? 'attribute' : meaning, 'guess');
  });
}

/** The same table, with columns of groups that name a known set's groups called as that set.
 * “Tutorial” with the values of *Lab sections* tells of *Lab sections* and makes no set of its own. */
export function withKnownSets(table: Table, meanings: readonly ColumnMeaning[], sets: KnownSets): Table {
  const headings = table.headings.map((heading, at) => {
    if (meanings[at] !== 'group' || isGroupHeading(heading) || sets.has(setKey(setOfHeading(heading).name)))
      return heading;
    const set = setNaming(valuesOf(table, at), sets);
    return set ? groupHeading(set) : heading;
  });
  return headings.some((heading, at) => heading !== table.headings[at]) ? { ...table, headings } : table;
}

/** Values of one column, from the top. */
const valuesLookedAt = 200;
const valuesOf = (table: Table, at: number) =>
  table.rows
    .slice(0, valuesLookedAt)
    .map((row) => (row.cells[at] ?? '').trim())
    .filter((value) => value !== '');

/** The set most of whose groups' names these values are; a few may be new. */
function setNaming(values: readonly string[], sets: KnownSets): KnownSet | null {
  const distinct = new Set(values.map(fold));
  if (distinct.size < 2) return null;
  let best: KnownSet | null = null;
  let most = 0;
  for (const set of new Set(sets.values())) {
    const known = [...distinct].filter((value) => set.groupOf.has(value)).length;
    if (known > most && known >= 0.6 * distinct.size) [best, most] = [set, known];
  }
  return best;
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
