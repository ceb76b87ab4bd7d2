import { stringify } from 'csv-stringify/browser/esm/sync';
import type { Dates } from '../look/index.js';
import { kindOf } from '../kinds/index.js';
import { stateWords } from '../release/index.js';
import type { SightColumn } from './columns.js';
import type { SightLine } from './lines.js';
import { sayCell } from './words.js';

/** What the matrix shows, as a table in words: a line for each activity, under the names of the columns. */
export function tableOf(
  lines: readonly SightLine[],
  columns: readonly SightColumn[],
  dates: Dates,
): readonly (readonly string[])[] {
  // prettier-ignore
  let state = '';
  const rows: string[][] = [];
  for (const line of lines) {
    if (line.kind === 'state') state = stateWords[line.state];
    else {
      const { title, kind } = line.activity;
      const cells = columns.map(({ of }, column) => {
        const cell = line.cells[column];
        return cell ? sayCell(cell, dates, of.kind) : '';
      });
      rows.push([title, kindOf(kind)?.word ?? kind, state, ...cells]);
    }
  }
  return [['Activity', 'Kind', 'State', ...columns.map(({ name }) => name)], ...rows];
}

export const csvOf = (table: readonly (readonly string[])[]): string =>
  stringify(table as string[][], { bom: true, escape_formulas: true, record_delimiter: '\r\n' });
