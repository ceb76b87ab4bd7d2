import type { Delimiter, Table } from '@jigsaw/core/files';
import { sayUnreadable } from '@jigsaw/core/roster';
import { isDelimiter, NotRead, readApart } from '../form/index.js';

export interface Looked {
  /** Its rows under their headings, or why they could not be read. */
  readonly found: GroupTable | string;
  readonly isText: boolean;
  /** What is between its columns; null: it could not be read as columns. */
  readonly delimiter: Delimiter | null;
}
export type GroupTable = Pick<Table, 'headings' | 'rows'>;

const largestBytes = 5_000_000;
/** A workbook is an archive. */
const isWorkbook = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Reads a file of groups: text in this page, a workbook on the server.
 * @param chosen what someone said that parts its columns; null: find it out.
 * @param readWorkbook resolves to the rows or to why there are none. */
export async function readGroupTable(
  file: File,
  chosen: Delimiter | null,
  readWorkbook: (contentBase64: string) => Promise<GroupTable | string>,
  stop: AbortSignal,
): Promise<Looked> {
  if (file.size > largestBytes)
    return {
      found: 'The file is over 5 MB. A list of groups is smaller; check that this is the right one.',
      isText: false,
      delimiter: null,
    };
  const bytes = new Uint8Array(await file.arrayBuffer());
  const notRead = `${file.name} was not read. Choose it again, or another file.`;
  if (isWorkbook(bytes)) {
    const stopped = new Promise<string>((resolve) => stop.addEventListener('abort', () => resolve(notRead)));
    return {
      found: await Promise.race([readWorkbook(base64Of(bytes)), stopped]),
      isText: false,
      delimiter: null,
    };
  }
  const table = await readApart((reading) => reading.table(bytes, chosen), stop).catch((error: unknown) => {
    if (error instanceof NotRead) return error;
    throw error;
  });
  if (table instanceof NotRead)
    return {
      found:
        table.why === 'stopped'
          ? notRead
          : `${file.name} takes too long to be read. Save the list alone as CSV and choose that.`,
      isText: true,
      delimiter: chosen,
    };
  if (!table.ok) return { found: sayUnreadable(table), isText: true, delimiter: chosen };
  const { delimiter } = table.table;
  return { found: table.table, isText: true, delimiter: isDelimiter(delimiter) ? delimiter : null };
}

/** Of so many bytes at a time: one call takes only so many arguments. */
const piece = 8192;
function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += piece)
    text += String.fromCharCode(...bytes.subarray(at, at + piece));
  return btoa(text);
}
