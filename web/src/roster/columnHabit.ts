import { ColumnMeaning } from '@jigsaw/contract/roster';
import type { ImportPreview } from '@jigsaw/contract/roster';
import { fold } from '@jigsaw/core/text';

type Meanings = ImportPreview['columns'][number]['meaning'][];
const longestMemory = 20;
const key = 'columns of class files';
type Habits = Readonly<Record<string, Meanings>>;

const signatureOf = (columns: ImportPreview['columns']): string =>
  columns.map((column) => fold(column.heading)).join('|');

function habits(): Habits {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, unknown>;
    return Object.fromEntries(
      Object.entries(kept).flatMap(([signature, meanings]) => {
        const read = ColumnMeaning.array().safeParse(meanings);
        return read.success ? [[signature, read.data]] : [];
      }),
    );
  } catch {
    return {};
  }
}

/** What somebody said last time of a file with these very headings; null: nothing else than what is guessed. */
export function habitFor({
  columns,
  hasHeader,
}: Pick<ImportPreview, 'columns' | 'hasHeader'>): Meanings | null {
  const meanings = hasHeader ? habits()[signatureOf(columns)] : undefined;
  return meanings?.length === columns.length &&
    meanings.some((meaning, at) => meaning !== columns[at]!.meaning)
    ? meanings
    : null;
}

/** Kept in this browser once a file came in; the oldest is forgotten. */
export function rememberColumns({ columns, hasHeader }: Pick<ImportPreview, 'columns' | 'hasHeader'>): void {
  if (!hasHeader) return;
  const signature = signatureOf(columns);
  const others = Object.entries(habits()).filter(([each]) => each !== signature);
  const kept = [...others, [signature, columns.map((column) => column.meaning)]].slice(-longestMemory);
  localStorage.setItem(key, JSON.stringify(Object.fromEntries(kept)));
}
