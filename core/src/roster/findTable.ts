import { isAddress, tidyAddress } from '../course/index.js';
import { unguardFormula } from '../files/index.js';
import type { SkippedBecause, TableRow } from '../files/index.js';
import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';
import { meaningOfHeading } from './headings.js';

/** One sheet of a workbook, or a whole text file; blank rows are not in it. */
export interface Sheet {
  readonly name: string;
  readonly rows: readonly TableRow[];
}

/** What someone said of a file; null: find it out. */
export interface TableChoice {
  /** Which sheet, counted from 0. */
  readonly sheet: number | null;
  /** The line of the headings; 0: the table has none. */
  readonly headingLine: number | null;
}
export const nothingChosen: TableChoice = { sheet: null, headingLine: null };

export interface SkippedRow {
  readonly line: number;
  readonly because: SkippedBecause;
  readonly text: string;
}

/** Where in a file the people are. */
export interface FoundTable {
  readonly sheet: number;
  /** null: it has no headings. */
  readonly headingRow: TableRow | null;
  readonly rows: readonly TableRow[];
  readonly skipped: readonly SkippedRow[];
}

/** Rows among which the headings are looked for. */
const rowsLookedAt = 40;

/** Finds the sheet with the people, the row of its headings, and the rows that are no people: titles above, totals, bands between.
 * @param sheets at least one; what was chosen of it is taken as it is. */
export function findTable(sheets: readonly Sheet[], choice: TableChoice): FoundTable {
  const found = sheets.map((sheet) => findIn(sheet.rows, choice.headingLine));
  const at =
    choice.sheet !== null && choice.sheet < sheets.length
      ? choice.sheet
      : found.reduce((best, each, index) => (each.worth > sure(found[best]).worth ? index : best), 0);
  const { headingRow, rows, skipped } = sure(found[at]);
  return { sheet: at, headingRow, rows, skipped };
}

interface FoundRows {
  readonly headingRow: TableRow | null;
  readonly rows: readonly TableRow[];
  readonly skipped: readonly SkippedRow[];
  /** How much it looks like a list of people. */
  readonly worth: number;
}

function findIn(all: readonly TableRow[], chosenLine: number | null): FoundRows {
  const at =
    chosenLine === null
      ? headingsAt(all)
      : chosenLine === 0
        ? -1
        : all.findIndex((row) => row.line === chosenLine);
  const headingRow = at < 0 ? null : sure(all[at]);
  const above = all.slice(0, Math.max(0, at)).map((row) => skip(row, 'above-headings'));
  const rows: TableRow[] = [];
  const skipped: SkippedRow[] = [...above];
  for (const row of all.slice(at + 1)) {
    const because = headingRow ? whyNoPerson(row, headingRow) : null;
    if (because) skipped.push(skip(row, because));
    else rows.push(row);
  }
  const people = rows.filter((row) => hasAddress(row.cells)).length;
  return {
    headingRow,
    rows,
    skipped,
    worth: people * 100 + meaningsIn(headingRow?.cells ?? []) * 10 + rows.length / 1000,
  };
}

/** The row that names most of what a class list tells, or that stands right above the first address; -1: none does. */
function headingsAt(all: readonly TableRow[]): number {
  const firstPerson = all.findIndex((row) => hasAddress(row.cells));
  let best = { at: -1, score: 0 };
  for (const [at, { cells }] of all.slice(0, rowsLookedAt).entries()) {
    if (cells.some((cell) => isAddress(tidyAddress(cell)))) continue;
    const known = meaningsIn(cells);
    // A title stands alone in its row; one word of it may be one that headings use, too.
    const needed = at === 0 ? 1 : 2;
    const next = all[at + 1]?.cells ?? [];
    const isRightAbove =
      !cells.some((cell) => cell.includes('@')) &&
      (at === 0
        ? next.some((cell) => cell.includes('@'))
        : at === firstPerson - 1 && filled(cells) > 1 && filled(cells) >= 0.6 * filled(next));
    const score = (known >= needed ? known * 10 : 0) + (isRightAbove ? 8 : 0);
    if (score > best.score) best = { at, score };
  }
  return best.at;
}

/** Why a row under the headings is not one of a person; null: it is one, perhaps a faulty one. */
function whyNoPerson(row: TableRow, headings: TableRow): SkippedBecause | null {
  if (hasAddress(row.cells)) return null;
  if (row.cells.every((cell, at) => fold(cell) === fold(headings.cells[at] ?? ''))) return 'headings-again';
  const count = filled(row.cells);
  const first = row.cells.findIndex((cell) => cell.trim() !== '');
  const text = fold(row.cells[first] ?? '');
  if (count <= 3 && totalWords.test(text)) return 'total';
  if (count > 1 || filled(headings.cells) < 3) return null;
  const meaning = meaningOfHeading(unguardFormula(headings.cells[first] ?? ''));
  // A row of which only the name is left is someone whose other cells are missing.
  const isPersonal = meaning !== null && meaning !== 'group' && meaning !== 'left-out';
  return !isPersonal || bandWords.test(text) || text.split(' ').length > 4 ? 'band' : null;
}

const totalWords =
  /^(grand )?(total|sum|summe|gesamt|gesamtzahl|anzahl|count|totale|totaal|suma|somme|effectif|antal)\b/;
const bandWords =
  /^(group|section|team|tutorial|lab|seminar|class|course|page|printed|end of|as of|gruppe|ubungsgruppe|tutorium|kurs|seite|stand|ende|groupe|section|fin|grupo|turma|pagina|gruppo|groep|grupp|grupa)\b/;

const filled = (cells: readonly string[]) => cells.filter((cell) => cell.trim() !== '').length;
const hasAddress = (cells: readonly string[]) => cells.some((cell) => isAddress(tidyAddress(cell)));
const meaningsIn = (cells: readonly string[]) =>
  new Set(cells.flatMap((cell) => meaningOfHeading(unguardFormula(cell)) ?? [])).size;

const longestShown = 80;
const skip = (row: TableRow, because: SkippedBecause): SkippedRow => ({
  line: row.line,
  because,
  text: textOf(row),
});

/** The filled cells of a row in one line, to be recognised by. */
export const textOf = ({ cells }: TableRow): string =>
  cells
    .map((cell) => cell.trim())
    .filter((cell) => cell !== '')
    .join(' · ')
    .slice(0, longestShown);
