import { useCallback, useEffect, useState } from 'react';
import type { z } from 'zod';
import { sitsIn } from '../api/index.js';

/** Where a page keeps something: in this browser, or in this tab alone and no longer than the tab. `reader`: in this tab, too, and found by those of
 * its pages that sit in, as it is about their reader and not about the course. */
type Where = 'browser' | 'tab' | 'reader';

/** null: a page that sits in finds nothing of its reader's own, and leaves nothing to them. */
function storageOf(where: Where): Storage | null {
  if (where !== 'reader' && sitsIn()) return null;
  return where === 'browser' ? localStorage : sessionStorage;
}

/** What this browser keeps under a key. null: nothing, or something that another version of these pages left and that no longer fits. */
export function readStored<Schema extends z.ZodType>(
  key: string,
  schema: Schema,
  where: Where = 'browser',
): z.output<Schema> | null {
  try {
    const read = schema.safeParse(JSON.parse(storageOf(where)?.getItem(key) ?? 'null'));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

/** Keeps a value, null for nothing.
 * @returns whether there was room for it. Without room what was kept before stays. */
export function store(key: string, value: unknown, where: Where = 'browser'): boolean {
  try {
    if (value === null) storageOf(where)?.removeItem(key);
    else storageOf(where)?.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

/** Who on this page hears what is kept under a key. */
const readers = new Map<string, Set<(value: unknown) => void>>();

/** A value that this browser keeps over a reload, the same for all who use it on this page. null until something is kept, and to keep nothing. */
export function useStored<Schema extends z.ZodType>(
  key: string,
  schema: Schema,
  where: Where = 'browser',
): [z.output<Schema> | null, (next: z.output<Schema> | null) => void] {
  const [value, setValue] = useState(() => readStored(key, schema, where));
  useEffect(() => {
    const own = readers.get(key) ?? new Set();
    const hear = (next: unknown) => setValue(next as z.output<Schema> | null);
    readers.set(key, own.add(hear));
    return () => void own.delete(hear);
  }, [key]);
  const put = useCallback(
    (next: z.output<Schema> | null) => {
      store(key, next, where);
      for (const hear of readers.get(key) ?? []) hear(next);
    },
    [key, where],
  );
  return [value, put];
}
