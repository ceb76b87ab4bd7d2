import { useEffect, useState } from 'react';
import type { RichTextNode } from '@jigsaw/core/text';

/** A text that is not sent yet. It outlives a reload, in this tab alone and no longer than the tab: others may use the same machine. */
export function useKeptDraft<Draft = RichTextNode>(
  key: string,
  empty: Draft,
): [Draft, (draft: Draft) => void, () => void] {
  const [draft, setDraft] = useState<Draft>(() => read(key) ?? empty);
  const [isTouched, setIsTouched] = useState(() => read(key) !== null);
  useEffect(() => {
    if (isTouched) sessionStorage.setItem(`draft ${key}`, JSON.stringify(draft));
    else sessionStorage.removeItem(`draft ${key}`);
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

function read<Draft>(key: string): Draft | null {
  const kept = sessionStorage.getItem(`draft ${key}`);
  return kept === null ? null : (JSON.parse(kept) as Draft);
}
