import { useState } from 'react';
import { EnrolmentId, GroupId } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import { z } from 'zod';
import { readStored, store } from '../page/index.js';

/** A deal as it is kept: who got which seat. What it is worth is judged by the rules as they are when it is looked at. */
const KeptDeal = z.object({
  /** "Deal 3" */
  number: z.number(),
  madeAt: z.string(),
  seed: z.number(),
  who: z.enum(['unplaced', 'all']),
  /** It was stopped; this was the best until then. */
  isStopped: z.boolean(),
  seats: z.array(z.tuple([EnrolmentId, GroupId.nullable()]).readonly()).readonly(),
});
export type KeptDeal = Readonly<z.infer<typeof KeptDeal>>;
export type Who = KeptDeal['who'];

const mostKept = 8;
const now = () => new Date().toISOString();

/** The deals made for a set, kept in this browser over a reload until they are discarded; the oldest give way. */
export function useKeptDeals(setId: ids.GroupSetId, of: ids.EnrolmentId) {
  const key = `deals ${setId} ${of}`;
  const [deals, setDeals] = useState(() => read(key));
  const put = (next: readonly KeptDeal[]) => {
    setDeals(next);
    keep(key, next);
  };
  return {
    deals,
    /** @returns its number */
    add(deal: Omit<KeptDeal, 'number' | 'madeAt'>): number {
      const before = read(key);
      const number = (before.at(-1)?.number ?? 0) + 1;
      put([...before, { ...deal, number, madeAt: now() }].slice(-mostKept));
      return number;
    },
    discard(number: number): void {
      put(read(key).filter((deal) => deal.number !== number));
    },
  };
}

/** As many as this browser has room for, the newest first of all. */
function keep(key: string, deals: readonly KeptDeal[]): void {
  if (!store(key, deals) && deals.length > 0) keep(key, deals.slice(1));
}

const read = (key: string): readonly KeptDeal[] => readStored(key, KeptDeal.array()) ?? [];
