import { useCallback, useState } from 'react';
import type { z } from 'zod';

/** What this browser keeps under a key. null: nothing, or something that another version of these pages left and that no longer fits. */
export function readStored<Schema extends z.ZodType>(
  key: string,
  schema: Schema,
  storage: Storage = localStorage,
): z.output<Schema> | null {
  try {
    const read = schema.safeParse(JSON.parse(storage.getItem(key) ?? 'null'));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

/** Keeps a value, null for nothing.
 * @returns whether there was room for it. Without room what was kept before stays. */
export function store(key: string, value: unknown, storage: Storage = localStorage): boolean {
  try {
    if (value === null) storage.removeItem(key);
    else storage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

/** A value that this browser keeps over a reload. null until something is kept. */
export function useStored<Schema extends z.ZodType>(
  key: string,
  schema: Schema,
): [z.output<Schema> | null, (next: z.output<Schema>) => void] {
  const [value, setValue] = useState(() => readStored(key, schema));
  const put = useCallback(
    (next: z.output<Schema>) => {
      setValue(next);
      store(key, next);
    },
    [key],
  );
  return [value, put];
}
