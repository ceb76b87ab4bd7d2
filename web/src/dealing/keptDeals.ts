import { useState } from 'react';
import type { EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';

export type Whom = 'unplaced' | 'all';

/** A deal as it is kept: who got which seat. What it is worth is judged by the rules as they are when it is looked at. */
export interface KeptDeal {
  /** "Deal 3" */
  readonly number: number;
  readonly madeAt: string;
  readonly seed: number;
  readonly whom: Whom;
  /** It was stopped; this was the best until then. */
  readonly isStopped: boolean;
  readonly seats: readonly (readonly [EnrolmentId, GroupId | null])[];
}

const mostKept = 8;
const now = () => new Date().toISOString();

/** The deals made for a set, kept in this browser over a reload until they are discarded; the oldest give way. */
export function useKeptDeals(setId: GroupSetId, of: EnrolmentId) {
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
  try {
    localStorage.setItem(key, JSON.stringify(deals));
  } catch {
    if (deals.length > 0) keep(key, deals.slice(1));
  }
}

function read(key: string): readonly KeptDeal[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return Array.isArray(kept) ? (kept as KeptDeal[]) : [];
  } catch {
    return [];
  }
}
