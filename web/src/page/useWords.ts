import { useEffect, useState } from 'react';
import { countWords } from '@jigsaw/core/text';

/** So long a text is counted at every key, and no one notices. */
const short = 10_000;
const restMs = 400;

/** How many words a text has; a long one is counted when the keys rest, so that typing in it never waits. */
export function useWords(text: string): number {
  const isShort = text.length <= short;
  const [counted, setCounted] = useState(() => (isShort ? 0 : countWords(text)));
  useEffect(() => {
    if (isShort) return;
    const timer = setTimeout(() => setCounted(countWords(text)), restMs);
    return () => clearTimeout(timer);
  }, [text, isShort]);
  return isShort ? countWords(text) : counted;
}
