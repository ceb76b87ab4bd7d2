import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import readSpreadsheet from 'read-excel-file/node';
import { sure } from '@jigsaw/core/lists';
import type { ReadTable, TableChoice } from '@jigsaw/core/roster';
import type { TableRow } from '@jigsaw/core/files';
import { asTable, mostColumns, mostRows, nothingChosen, readBundle } from '@jigsaw/core/roster';

/** A zip may say that it unpacks to little and mean much; what is unpacked is bounded before anything is. */
const mostUnpackedBytes = 40_000_000;
const mostFiles = 2_000;
/** Rows of a class list, with room for blank ones between. */
const mostSheetRows = 2 * mostRows;

export const isArchive = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** A spreadsheet or a roster bundle as a class file. */
export async function readArchive(
  bytes: Uint8Array,
  choice: TableChoice = nothingChosen,
): Promise<ReadTable> {
  const files = unpack(bytes);
  if (files === 'archive-too-large' || files === 'archive-broken') return { ok: false, code: files };
  if (files.has('xl/workbook.xml')) return readWorkbook(files, choice);
  const byName = new Map(
    [...files].map(([path, content]) => [sure(path.split('/').at(-1)).toLowerCase(), content]),
  );
  return readBundle(byName);
}

function unpack(bytes: Uint8Array): ReadonlyMap<string, Uint8Array> | 'archive-too-large' | 'archive-broken' {
  let total = 0;
  let count = 0;
  const isWithinBounds = () => total <= mostUnpackedBytes && count <= mostFiles;
  try {
    const files = unzipSync(bytes, {
      filter: ({ originalSize }) => {
        total += originalSize;
        count += 1;
        return isWithinBounds(); // nothing more is unpacked once there is too much
      },
    });
    if (!isWithinBounds()) return 'archive-too-large';
    return new Map(Object.entries(files));
  } catch {
    return isWithinBounds() ? 'archive-broken' : 'archive-too-large';
  }
}

async function readWorkbook(
  unpacked: ReadonlyMap<string, Uint8Array>,
  choice: TableChoice,
): Promise<ReadTable> {
  const files = new Map(unpacked);
  const paddings = paddingsOf(unpacked.get('xl/styles.xml'));
  for (const [path, bytes] of unpacked) {
    if (!/^xl\/worksheets\/[^/]+\.xml$/.test(path)) continue;
    const sheet = filledCells(bytes, paddings);
    if (typeof sheet === 'string') return { ok: false, code: sheet };
    files.set(path, sheet);
  }
  let sheets: Awaited<ReturnType<typeof readSpreadsheet>>;
  try {
    // Packed again from what was unpacked within bounds, so that the reader cannot be led beyond them.
    sheets = await readSpreadsheet(Buffer.from(zipSync(Object.fromEntries(files), { level: 0 })));
  } catch {
    return { ok: false, code: 'archive-broken' };
  }
  const tables = sheets.map(({ sheet, data }) => ({
    name: sheet,
    rows: data.flatMap((cells, at): TableRow[] => {
      const texts = cells.map(cellText);
      return texts.some((text) => text.trim() !== '') ? [{ line: at + 1, cells: texts }] : [];
    }),
  }));
  return asTable(tables, 'UTF-8', 'spreadsheet', choice);
}

/** Number formats of nothing but zeros, like 00000000, by the style that uses them: as many figures are shown, with zeros in front. */
function paddingsOf(styles: Uint8Array | undefined): ReadonlyMap<string, number> {
  if (!styles) return new Map();
  const xml = strFromU8(styles);
  const figuresOf = new Map(
    [...xml.matchAll(/<numFmt\s[^<>]*>/g)].flatMap(([tag]) => {
      const [id, zeros] = [/\bnumFmtId="(\d+)"/.exec(tag)?.[1], /\bformatCode="(0{2,30})"/.exec(tag)?.[1]];
      return id !== undefined && zeros !== undefined ? [[id, zeros.length] as const] : [];
    }),
  );
  // Looked for by its ends: an expression would look for the second one again after each of many first ones.
  const from = xml.indexOf('<cellXfs');
  const to = xml.indexOf('</cellXfs>', from);
  const used = from < 0 || to < 0 ? '' : xml.slice(from, to);
  return new Map(
    [...used.matchAll(/<xf\s[^<>]*>/g)].flatMap(([tag], style) => {
      const figures = figuresOf.get(/\bnumFmtId="(\d+)"/.exec(tag)?.[1] ?? '');
      return figures === undefined ? [] : [[String(style), figures] as const];
    }),
  );
}

/** A number that its sheet shows with zeros in front is a text with them: 0012345 is someone's number. */
const padded = (xml: string, paddings: ReadonlyMap<string, number>): string =>
  paddings.size === 0
    ? xml
    : xml.replace(/<c(\s[^<>]*)><v>(\d{1,30})<\/v><\/c>/g, (cell, attributes: string, figures: string) => {
        const wanted = paddings.get(/\bs="(\d+)"/.exec(attributes)?.[1] ?? '');
        return wanted === undefined || /\bt="/.test(attributes)
          ? cell
          : `<c${attributes} t="str"><v>${figures.padStart(wanted, '0')}</v></c>`;
      });

/** A sheet without the cells in which nothing stands. Programs keep what someone once formatted, up to the last cell there is, and the reader makes
 * room for all between. */
function filledCells(
  bytes: Uint8Array,
  paddings: ReadonlyMap<string, number>,
): Uint8Array | 'too-many-columns' | 'too-many-rows' {
  const xml = strFromU8(bytes)
    .replace(/<c(?:\s[^<>]*)?\/>/g, '')
    .replace(/<c(?:\s[^<>]*)?><\/c>/g, '')
    .replace(/<row(?:\s[^<>]*)?\/>/g, '')
    .replace(/<row(?:\s[^<>]*)?>\s*<\/row>/g, '')
    .replace(/<dimension(?:\s[^<>]*)?\/>/g, '');
  for (const [, letters = '', row = ''] of xml.matchAll(/<c\s[^<>]*?\br="([A-Z]{1,4})(\d{1,8})"/g)) {
    if (columnOf(letters) > mostColumns) return 'too-many-columns';
    if (Number(row) > mostSheetRows) return 'too-many-rows';
  }
  return strToU8(padded(xml, paddings));
}

/** A is 1, Z is 26, AA is 27. */
const columnOf = (letters: string): number =>
  [...letters].reduce((column, letter) => column * 26 + letter.charCodeAt(0) - 64, 0);

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  return typeof cell === 'string' ? cell : JSON.stringify(cell); // a number, or whether something is so
}
