import { ColumnMeaning } from '@jigsaw/contract/import';
import type { ImportPreview } from '@jigsaw/contract/import';
import { sure } from '@jigsaw/core/lists';
import { fold } from '@jigsaw/core/text';
import { z } from 'zod';
import { readStored, store } from '../page/index.js';

type Meaning = z.infer<typeof ColumnMeaning>;
type Seen = Pick<ImportPreview, 'columns' | 'hasHeader'>;
const longestMemory = 200;
const key = 'columns by heading';
const Habits = z.record(z.string(), ColumnMeaning);
/** Meanings that any number of columns may have. */
const often: ReadonlySet<Meaning> = new Set(['attribute', 'group', 'left-out']);

const habits = () => readStored(key, Habits) ?? {};

/** What someone said before of columns with these headings, in whatever file; null: nothing else than what is guessed. */
export function habitFor({ columns, hasHeader }: Seen): Meaning[] | null {
  if (!hasHeader) return null;
  const known = habits();
  const taken = new Set<Meaning>();
  const meanings = columns.map((column) => {
    const habit = known[fold(column.heading)] ?? column.meaning;
    // One meaning stands once: the first column keeps it.
    const meaning = taken.has(habit) ? column.meaning : habit;
    if (!often.has(meaning)) taken.add(meaning);
    return meaning;
  });
  return meanings.some((meaning, at) => meaning !== sure(columns[at]).meaning) ? meanings : null;
}

/** Kept in this browser once a file came in; the oldest are forgotten. */
export function rememberColumns({ columns, hasHeader }: Seen): void {
  if (!hasHeader) return;
  const seen = new Map(columns.map((column) => [fold(column.heading), column.meaning] as const));
  const others = Object.entries(habits()).filter(([heading]) => !seen.has(heading));
  store(key, Object.fromEntries([...others, ...seen].slice(-longestMemory)));
}
