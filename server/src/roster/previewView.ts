import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/import';
import type { Table } from '@jigsaw/core/files';
import { sure } from '@jigsaw/core/lists';
import type { ColumnMeaning, PreviewRow, RowProblem } from '@jigsaw/core/roster';
import { sayRowProblem } from '@jigsaw/core/roster';

const samplesShown = 3;

/** Rows passed over that are named one by one. */
const skippedShown = 100;
/** Where in a file the table was found. */
export const placeOf = ({ place }: Table): ImportPreview['place'] =>
  place
    ? {
        sheets: place.sheets.map((sheet) => ({ ...sheet })),
        sheet: place.sheet,
        headingLine: place.headingLine,
        firstRows: place.firstRows.map((row) => ({ ...row })),
        skipped: place.skipped.slice(0, skippedShown).map((row) => ({ ...row })),
      }
    : null;

/** Values of a column, to know it by. */
export const samplesOf = (table: Table, at: number) =>
  [...new Set(table.rows.map((row) => row.cells[at] ?? '').filter((cell) => cell.trim() !== ''))].slice(
    0,
    samplesShown,
  );

/** Offered only where nothing else is wrong with the row. */
function mayBe(found: readonly RowProblem[]): { name: string; isAlike: boolean } | null {
  const [only, ...more] = found;
  if (only?.code !== 'number-of-another' || !only.mayBeSame || more.length > 0) return null;
  return { name: only.name, isAlike: only.isAlike };
}

/** Where to put a row right: the column that its first problem is about. */
function faultyCell(
  problem: RowProblem,
  headings: readonly string[],
  meanings: readonly ColumnMeaning[],
): number | null {
  if (problem.code === 'looks-like-formula') return columnOr(headings.indexOf(problem.heading));
  const about = meaningOfProblem[problem.code] ?? [];
  return columnOr(meanings.findIndex((meaning) => about.includes(meaning)));
}

const columnOr = (at: number) => (at < 0 ? null : at);
const meaningOfProblem: Partial<Record<RowProblem['code'], readonly ColumnMeaning[]>> = {
  'no-address': ['email'],
  'bad-address': ['email'],
  'same-address-as-line': ['email'],
  'same-person-as-line': ['email'],
  'no-name': ['name', 'given-name', 'family-name'],
  'name-too-long': ['name', 'given-name', 'family-name'],
  'number-of-another': ['number'],
  'same-number-as-line': ['number'],
  'unknown-role': ['role'],
  'several-groups': ['group', 'section'],
};

/** A row as the page shows it. */
export function rowView(
  row: PreviewRow,
  headings: readonly string[],
  meanings: readonly ColumnMeaning[],
): PreviewRowView {
  return row.kind === 'problem'
    ? {
        kind: row.kind,
        line: row.line,
        cells: [...row.cells],
        faultyCell: faultyCell(sure(row.problems[0]), headings, meanings),
        sentences: row.problems.map(sayRowProblem),
        mayBe: mayBe(row.problems),
      }
    : ({ ...row } as PreviewRowView);
}

/** How many rows do what. */
export function countKinds(rows: readonly PreviewRow[]): ImportPreview['counts'] {
  const counts = { new: 0, changed: 0, unchanged: 0, problem: 0 };
  for (const row of rows) counts[row.kind] += 1;
  return counts;
}
