import { sure } from '../lists/index.js';
import type { ColumnMeaning } from './headings.js';
import { meaningOfHeading } from './headings.js';
import type { Delimiter, Table, TablePlace, TableRow } from '../files/index.js';
import { nothingChosen } from './findTable.js';
import type { TableChoice } from './findTable.js';
import { isMarked, peopleOfLine, wordsOfLine } from './pasteLine.js';
import { mostRows, readText } from './readTable.js';
import type { ReadTable } from './readTable.js';

export type Paste =
  | {
      readonly ok: true;
      readonly table: Table;
      /** null: cells of a spreadsheet, whose columns are to be guessed as those of a file. */
      readonly meanings: readonly ColumnMeaning[] | null;
    }
  | Extract<ReadTable, { ok: false }>
  | { readonly ok: false; readonly code: 'line-too-long'; readonly line: number };

/** A line may hold a whole class, as the addressees of a mail do. */
const longestLine = 100_000;
/** So much text on a line that names no one is no line of a list. */
const longestWithoutAddress = 2_000;

/** People out of whatever someone has at hand: addresses and names in either order, `Name <address>`, numbered or with bullets,
 * quoted, several on a line, out of a mail with greeting and signature, or cells of a spreadsheet.
 * A line that may be a person without an address stays, so that the preview can name it; prose is passed over and listed.
 * Rows are numbered by their lines; where a line holds several people, by how many came before. */
export function readPaste(text: string, choice: TableChoice = nothingChosen): Paste {
  const lines = text.split(/\r\n|\r|\n/).flatMap((raw, at) => {
    const line = raw.trim();
    return line === '' ? [] : [{ line: at + 1, text: line }];
  });
  if (lines.length === 0) return { ok: false, code: 'empty' };
  if (lines.length > mostRows) return { ok: false, code: 'too-many-rows' };
  const tooLong = lines.find(
    ({ text: line }) =>
      line.length > longestLine || (line.length > longestWithoutAddress && !line.includes('@')),
  );
  if (tooLong) return { ok: false, code: 'line-too-long', line: tooLong.line };
  const delimiter = delimiterOf(lines.map((line) => line.text));
  if (delimiter) {
    const read = readText(text.replace(/\r\n?/g, '\n'), delimiter, choice);
    return read.ok ? { ...read, meanings: null } : read;
  }
  return peopleOf(lines);
}

interface Line {
  readonly line: number;
  readonly text: string;
}
type Skipped = TablePlace['skipped'][number];

function peopleOf(lines: readonly Line[]): Paste {
  const signatures = linesOfSignatures(lines);
  const hasAddresses = lines.some((line) => line.text.includes('@'));
  const rows: TableRow[] = [];
  const skipped: Skipped[] = [];
  const pass = (line: number, because: Skipped['because'], text: string) =>
    skipped.push({ line, because, text: text.slice(0, longestShown) });
  for (const { line, text } of lines) {
    if (signatures.has(line)) {
      pass(line, 'signature', text);
      continue;
    }
    const { people, beside } = peopleOfLine(text);
    for (const { address, name } of people)
      rows.push({ line, cells: [address, name || nameFromAddress(address)] });
    if (beside !== '') pass(line, 'beside', beside);
    if (people.length > 0) continue;
    const words = wordsOfLine(text);
    if (hasAddresses && !isName(words)) pass(line, 'words', text);
    else rows.push({ line, cells: ['', words] });
  }
  if (rows.length > mostRows) return { ok: false, code: 'too-many-rows' };
  if (rows.length === 0) return { ok: false, code: 'empty' };
  const holdsSeveral = new Set(rows.map((row) => row.line)).size < rows.length;
  return {
    ok: true,
    table: {
      headings: ['Address', 'Name'],
      hasHeader: false,
      rows: holdsSeveral ? rows.map((row, at) => ({ ...row, line: at + 1 })) : rows,
      encoding: 'UTF-8',
      delimiter: ',',
      place: { sheets: [], sheet: 0, headingLine: null, firstRows: [], skipped },
    },
    meanings: ['email', 'name'],
  };
}

/** Lines under `--`, as mail programs put it: few of them, with one address at most, up to where a quoted part or a list goes on. */
function linesOfSignatures(lines: readonly Line[]): ReadonlySet<number> {
  const signed = new Set<number>();
  let open: Line[] | null = null;
  const close = () => {
    const addresses = open?.filter((line) => line.text.includes('@')).length ?? 0;
    if (open && open.length <= longestSignature && addresses <= 1)
      for (const { line } of open) signed.add(line);
    open = null;
  };
  for (const line of lines) {
    if (line.text === '--') {
      close();
      open = [line];
    } else if (isMarked(line.text)) close();
    else open?.push(line);
  }
  close();
  return signed;
}
/** Lines of it, its mark included. */
const longestSignature = 9;

const longestShown = 80;

/** What parts the cells of a pasted table: its first line names columns, or most lines are rows of three cells and more; null: it is none. */
function delimiterOf(lines: readonly string[]): Delimiter | null {
  const first = sure(lines[0]);
  const named = first.includes('@')
    ? undefined
    : headingDelimiters.find(
        (delimiter) => first.split(delimiter).filter((cell) => meaningOfHeading(cell) !== null).length > 1,
      );
  if (named) return named;
  const wide = lines.filter((line) => line.replace(/^\d{1,4}[.)]?\t/, '').split('\t', 3).length > 2);
  return wide.length > 0.6 * lines.length ? '\t' : null;
}
const headingDelimiters = ['\t', ';', ','] as const;

/** Whether a line without an address may be someone whose address is missing: a few words that end as no sentence does, perhaps with a student number.
 * “fe-0003 Cho Min” may be one, “Section 2” is none. */
function isName(words: string): boolean {
  if (/[.!?:,]$/.test(words) || !/\p{L}/u.test(words) || greeting.test(words)) return false;
  const all = words.split(' ');
  const plain = all.filter((word) => !/\d/.test(word));
  const numbers = all.filter((word) => /\d/.test(word));
  return (
    plain.length <= mostWordsOfName &&
    (numbers.length === 0 || (plain.length > 1 && numbers.every((word) => /\d\D?\d\D?\d/.test(word))))
  );
}
const mostWordsOfName = 5;
const greeting =
  /^(hi|hello|hey|dear|hallo|liebe|lieber|bonjour|hola|ciao|thanks|thank you|danke|merci|gracias|regards|cheers|sincerely|sent from|good (morning|day|afternoon|evening)|guten (morgen|tag|abend)|(best|kind|many|warm) (wishes|regards|thanks)|(viele|beste|liebe) grüße|mit freundlichen grüßen)\b/i;

/** "ada.okafor@…" is called Ada Okafor until someone says otherwise. */
export function nameFromAddress(address: string): string {
  const words = sure(address.split('@')[0])
    .split(/[._+-]+/)
    .filter((word) => word !== '');
  return words.map((word) => sure(word[0]).toUpperCase() + word.slice(1)).join(' ');
}
