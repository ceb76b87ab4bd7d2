import { useEffect, useState } from 'react';
import type { z } from 'zod';
import { readStored, store } from './stored.js';

const keyOf = (name: string) => `draft ${name}`;

/** For what can no longer be sent, though it was not from here. */
export const forgetKeptDraft = (name: string): void => void store(keyOf(name), null, 'tab');

/** A text that is not sent yet. It outlives a reload, in this tab alone and no longer than the tab: others may use the same machine. */
export function useKeptDraft<Draft>(
  name: string,
  schema: z.ZodType<Draft>,
  empty: Draft,
): [Draft, (draft: Draft) => void, () => void] {
  const key = keyOf(name);
  const [kept] = useState(() => readStored(key, schema, 'tab'));
  const [draft, setDraft] = useState<Draft>(kept ?? empty);
  const [isTouched, setIsTouched] = useState(kept !== null);
  useEffect(() => {
    store(key, isTouched ? draft : null, 'tab');
  }, [key, draft, isTouched]);
  return [
    draft,
    (next) => {
      setDraft(next);
      setIsTouched(true);
    },
    () => {
      setDraft(empty);
      setIsTouched(false);
    },
  ];
}
