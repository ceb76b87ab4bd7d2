import { useMemo } from 'react';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import type { ColumnSpec } from './columns.js';

export const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true });
export interface Sort {
  readonly column: string;
  readonly sign: 1 | -1;
}

/** Of all entries those found, by the column that the person chose. */
export function useSorted(
  entries: readonly RosterEntry[],
  found: readonly RosterEntry[],
  columns: readonly ColumnSpec[],
  sort: Sort,
): readonly RosterEntry[] {
  // Sorted before anybody searches: comparing names costs more than all else that a key of the search does.
  const sorted = useMemo(() => {
    const column = columns.find((each) => each.id === sort.column) ?? sure(columns[0]);
    const keyed = entries.map((entry) => ({ entry, key: column.sortBy(entry) }));
    return keyed.sort((a, b) => sort.sign * collator.compare(a.key, b.key)).map(({ entry }) => entry);
  }, [entries, columns, sort]);
  return useMemo(() => {
    if (found.length === entries.length) return sorted;
    const wanted = new Set(found);
    return sorted.filter((entry) => wanted.has(entry));
  }, [sorted, entries, found]);
}
