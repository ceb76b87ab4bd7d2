import { useState } from 'react';
import type { BoardView, MovesAct } from '@jigsaw/contract/placing';

/** What a colleague did to places here since this page was opened, until its reader does something themselves; null: nothing. What students choose for
 * themselves is counted in the same line, not told one by one.
 * @param savedAt when the reader's own last act was kept. */
export function useOthersAct({ latest }: BoardView, savedAt: number | null): MovesAct | null {
  const at = latest?.at ?? null;
  const [seen, setSeen] = useState({ at, savedAt });
  if (seen.savedAt !== savedAt) setSeen({ at, savedAt });
  return latest && !latest.isYours && !latest.isOwnChoice && at !== seen.at ? latest : null;
}
