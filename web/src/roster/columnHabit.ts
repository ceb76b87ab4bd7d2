import { ColumnMeaning } from '@jigsaw/contract/roster';
import type { ImportPreview } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { fold } from '@jigsaw/core/text';
import { z } from 'zod';
import { readStored, store } from '../page/index.js';

type Meanings = ImportPreview['columns'][number]['meaning'][];
const longestMemory = 20;
const key = 'columns of class files';
const Habits = z.record(z.string(), ColumnMeaning.array());

const signatureOf = (columns: ImportPreview['columns']): string =>
  columns.map((column) => fold(column.heading)).join('|');

const habits = () => readStored(key, Habits) ?? {};

/** What somebody said last time of a file with these very headings; null: nothing else than what is guessed. */
export function habitFor({
  columns,
  hasHeader,
}: Pick<ImportPreview, 'columns' | 'hasHeader'>): Meanings | null {
  const meanings = hasHeader ? habits()[signatureOf(columns)] : undefined;
  return meanings?.length === columns.length &&
    meanings.some((meaning, at) => meaning !== sure(columns[at]).meaning)
    ? meanings
    : null;
}

/** Kept in this browser once a file came in; the oldest is forgotten. */
export function rememberColumns({ columns, hasHeader }: Pick<ImportPreview, 'columns' | 'hasHeader'>): void {
  if (!hasHeader) return;
  const signature = signatureOf(columns);
  const others = Object.entries(habits()).filter(([each]) => each !== signature);
  const kept = [...others, [signature, columns.map((column) => column.meaning)]].slice(-longestMemory);
  store(key, Object.fromEntries(kept));
}
