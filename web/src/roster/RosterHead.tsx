import type { ColumnSpec } from './columns.js';
import { Tick } from './RosterRow.js';
import type { Sort } from './useSorted.js';

interface RosterHeadProps {
  readonly columns: readonly ColumnSpec[];
  readonly sort: Sort;
  readonly onSort: (sort: Sort) => void;
  /** Whether those who are shown are selected; null: no one can be. */
  readonly allTicked: boolean | 'mixed' | null;
  readonly onTickAll: () => void;
}

/** The headings, by any of which the people can be sorted. */
export function RosterHead({ columns, sort, onSort, allTicked, onTickAll }: RosterHeadProps) {
  return (
    <div role="rowgroup">
      <div role="row" aria-rowindex={1}>
        {allTicked !== null && (
          <span role="columnheader">
            <Tick label="Select all" checked={allTicked} onPress={onTickAll} />
          </span>
        )}
        {columns.map((column) => {
          const isSorted = sort.column === column.id;
          return (
            <span
              key={column.id}
              role="columnheader"
              aria-sort={isSorted ? (sort.sign === 1 ? 'ascending' : 'descending') : 'none'}
            >
              <button
                type="button"
                onClick={() => onSort({ column: column.id, sign: isSorted && sort.sign === 1 ? -1 : 1 })}
              >
                {column.heading}
                {isSorted ? (sort.sign === 1 ? ' ↑' : ' ↓') : ''}
              </button>
            </span>
          );
        })}
      </div>
    </div>
  );
}
