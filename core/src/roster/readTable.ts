import { CsvError, parse } from 'csv-parse/sync';
import type { Decoded, Delimiter, Encoding, Table, TableRow } from '../files/index.js';
import { decode, delimiters, unguardFormula } from '../files/index.js';
import { sure } from '../lists/index.js';
import { findTable, nothingChosen, textOf } from './findTable.js';
import type { Sheet, TableChoice } from './findTable.js';

export type ReadTable =
  | { readonly ok: true; readonly table: Table }
  | {
      readonly ok: false;
      readonly code:
        | Exclude<Decoded, { ok: true }>['code']
        | 'header-only'
        | 'too-many-rows'
        | 'too-many-columns'
        | 'too-many-cells'
        | 'row-too-long'
        | 'not-a-table'
        | ArchiveFault;
    }
  | { readonly ok: false; readonly code: 'quote-not-closed'; readonly line: number };

/** Why an archive (a spreadsheet is one too) holds no class list. */
export type ArchiveFault = 'archive-broken' | 'archive-too-large' | 'archive-without-people';

export const mostRows = 20_000;
export const mostColumns = 200;
const mostCells = 400_000;
/** A list of people or groups is read in a moment; what takes so long is something else. */
export const longestReadSeconds = 20;
/** Of the text of one row. */
const longestRow = 100_000;

/** Reads a delimited file of any kind: encoding, delimiter and headings are found out. Line numbers are the file's own.
 * @param chosen what someone said that parts the cells; null: find it out.
 * @param choice which row they said holds the headings. */
export function readTable(
  bytes: Uint8Array,
  chosen: Delimiter | null = null,
  choice: TableChoice = nothingChosen,
): ReadTable {
  const decoded = decode(bytes);
  if (!decoded.ok) return decoded;
  // One kind of line end, since the parser counts two lines for a CR LF inside quotes.
  const text = decoded.text.replace(/\r\n?/g, '\n');
  return readText(text, chosen ?? sniffDelimiter(text), choice, decoded.encoding);
}

/** Reads a delimited text whose lines end in LF. */
export function readText(
  text: string,
  delimiter: Delimiter,
  choice: TableChoice,
  encoding: Encoding = 'UTF-8',
): ReadTable {
  let all: TableRow[];
  try {
    all = records(text, delimiter, mostRows + 2); // one more than are taken, and the header
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    if (error.code === 'CSV_QUOTE_NOT_CLOSED')
      return { ok: false, code: 'quote-not-closed', line: lineOfOpenQuote(text, delimiter) };
    return { ok: false, code: error.code === 'CSV_MAX_RECORD_SIZE' ? 'row-too-long' : 'not-a-table' };
  }
  return asTable([{ name: '', rows: all }], encoding, delimiter, choice);
}

/** Rows that are offered as headings. */
const rowsOffered = 15;

/** Sheets of rows as a table: which sheet holds the people, and under which headings, is found out or was chosen. */
export function asTable(
  sheets: readonly Sheet[],
  encoding: Encoding,
  delimiter: Table['delimiter'],
  choice: TableChoice = nothingChosen,
): ReadTable {
  if (sheets.every((sheet) => sheet.rows.length === 0)) return { ok: false, code: 'empty' };
  const found = findTable(sheets, choice);
  const all = sure(sheets[found.sheet]).rows;
  const { headingRow, skipped } = found;
  const width = all.reduce((most, row) => Math.max(most, row.cells.length), 0);
  if (width > mostColumns) return { ok: false, code: 'too-many-columns' };
  const headings = headingRow
    ? headingRow.cells.map((cell) => unguardFormula(cell).trim())
    : Array.from({ length: width }, (_, at) => `Column ${at + 1}`);
  const table = {
    headings,
    hasHeader: headingRow !== null,
    rows: found.rows,
    encoding,
    delimiter,
    place: {
      sheets: sheets.map((sheet) => ({ name: sheet.name, rows: sheet.rows.length })),
      sheet: found.sheet,
      headingLine: headingRow?.line ?? null,
      firstRows: all.slice(0, rowsOffered).map((row) => ({ line: row.line, text: textOf(row) })),
      skipped,
    },
  };
  return withinLimits(delimiter === 'spreadsheet' ? withoutBlankColumns(table) : table);
}

/** A sheet may begin further right, and holds columns that someone only formatted. */
function withoutBlankColumns(table: Table): Table {
  const isFilled = table.headings.map(
    (heading, at) => heading !== '' || table.rows.some((row) => (row.cells[at] ?? '').trim() !== ''),
  );
  const kept = (cells: readonly string[]) => cells.filter((_, at) => isFilled[at] !== false);
  return {
    ...table,
    headings: kept(table.headings),
    rows: table.rows.map((row) => ({ ...row, cells: kept(row.cells) })),
  };
}

/** A table that holds someone, and no more of them than any class has. */
export function withinLimits(table: Table): ReadTable {
  if (table.rows.length === 0) return { ok: false, code: 'header-only' };
  if (table.rows.length > mostRows) return { ok: false, code: 'too-many-rows' };
  if (table.rows.reduce((sum, row) => sum + row.cells.length, 0) > mostCells)
    return { ok: false, code: 'too-many-cells' };
  return { ok: true, table };
}

/** The records of a delimited text with the line on which each starts.
 * @param to how many at most, from the top. */
export function records(text: string, delimiter: Delimiter, to = -1): TableRow[] {
  const parsed = parse(text, {
    delimiter,
    to,
    bom: true,
    info: true,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: true,
    max_record_size: longestRow,
  }) as unknown as { info: { lines: number }; record: string[] }[];
  return parsed
    .map(({ info, record }) => ({ line: info.lines - newlinesIn(record), cells: record }))
    .filter((row) => row.cells.some((cell) => cell.trim() !== ''));
}

// The parser tells the line on which a row ends; people look for the one on which it starts.
const newlinesIn = (cells: readonly string[]) =>
  cells.reduce((sum, cell) => sum + (cell.split('\n').length - 1), 0);

const sniffedRecords = 20;
/** Characters in which they are looked for, whatever the size of the file. */
const sniffedLength = 200_000;

/** The delimiter that cuts the first records into the most cells, equally many in each; line ends within quotes part nothing. */
function sniffDelimiter(text: string): Delimiter {
  const head = text.slice(0, sniffedLength);
  let best: { delimiter: Delimiter; score: number } = { delimiter: ',', score: 0 };
  for (const delimiter of delimiters) {
    const counts = cutsOf(head, delimiter);
    const usual = counts.toSorted((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 0;
    const agreeing = counts.filter((count) => count === usual).length / Math.max(1, counts.length);
    const score = usual * agreeing;
    if (score > best.score) best = { delimiter, score };
  }
  return best.delimiter;
}

/** How often this delimiter cuts each of the first records; a file that it leaves with an open quote is judged by its lines. */
function cutsOf(text: string, delimiter: Delimiter): number[] {
  try {
    return records(text, delimiter, sniffedRecords).map(({ cells }) => cells.length - 1);
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    const lines = text.split('\n', sniffedRecords).filter((line) => line.trim() !== '');
    return lines.map((line) => line.split(delimiter).length - 1);
  }
}

/** The quote that swallows the rest of the file is the last one that opens a cell and finds no partner. */
function lineOfOpenQuote(text: string, delimiter: Delimiter): number {
  let line = 1;
  let openedOn = 1;
  let isOpen = false;
  let cellStart = true;
  for (let at = 0; at < text.length; at += 1) {
    const char = sure(text[at]);
    if (char === '"' && (isOpen || cellStart)) {
      if (isOpen && text[at + 1] === '"') at += 1;
      else {
        isOpen = !isOpen;
        if (isOpen) openedOn = line;
      }
      cellStart = false;
      continue;
    }
    cellStart = !isOpen && (char === delimiter || char === '\n');
    if (char === '\n') line += 1;
  }
  return openedOn;
}
