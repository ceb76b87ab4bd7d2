import type { Delimiter } from '@jigsaw/core/files';
import type { Paste, ReadTable, TableChoice } from '@jigsaw/core/roster';
import { nothingChosen, readPaste, readTable } from '@jigsaw/core/roster';
import { isArchive, readArchive } from './archive.js';
import { yieldToOthers } from '../platform/yielding.js';

yieldToOthers();

export type ReadTask =
  | { readonly kind: 'paste'; readonly text: string; readonly choice: TableChoice }
  | {
      readonly kind: 'file';
      readonly bytes: Uint8Array;
      readonly delimiter: Delimiter | null;
      readonly choice: TableChoice;
    }
  /** A spreadsheet or a bundle, and nothing else. */
  | { readonly kind: 'archive'; readonly bytes: Uint8Array };

export type ReadEnd = Paste | ReadTable;

/** Reads what someone brings in, on a thread of its own: it may be anything. */
export default async function read(task: ReadTask): Promise<ReadEnd> {
  if (task.kind === 'paste') return readPaste(task.text, task.choice);
  const choice = task.kind === 'file' ? task.choice : nothingChosen;
  if (isArchive(task.bytes)) return readArchive(task.bytes, choice);
  return task.kind === 'archive'
    ? { ok: false, code: 'archive-broken' }
    : readTable(task.bytes, task.delimiter, choice);
}
