import type { EnrolmentId, GroupId } from '../ids/index.js';

/** Somebody who is to be dealt a place, or keeps theirs. */
export interface DealtStudent {
  readonly id: EnrolmentId;
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  /** Where they sit before the deal: of deals that are alike, the one that moves fewer people is made. */
  readonly sitsIn?: GroupId | null;
  /** Stays in this group whatever comes: pinned, or not dealt anew. null: gets a place. */
  readonly fixedIn: GroupId | null;
}

export interface DealtInto {
  readonly id: GroupId;
  readonly name: string;
  /** null: no limit. */
  readonly capacity: number | null;
  /** Whoever is in it stays, and nobody comes. */
  readonly isLocked: boolean;
}

/** What a deal is to bring about. Keeping together and keeping apart hold without exception; the others are wishes, the first the heaviest. */
export type Rule =
  | { readonly kind: 'together'; readonly students: readonly EnrolmentId[] }
  | { readonly kind: 'apart'; readonly students: readonly EnrolmentId[] }
  | { readonly kind: 'spread' | 'alike'; readonly attribute: string; readonly as: 'category' | 'number' }
  | { readonly kind: 'nobody-alone'; readonly attribute: string }
  | { readonly kind: 'common-time'; readonly attribute: string; readonly wanted: number }
  | { readonly kind: 'fresh'; readonly sets: readonly EarlierSet[] };

export type Wish = Exclude<Rule, { kind: 'together' | 'apart' }>;
export const isWish = (rule: Rule): rule is Wish => rule.kind !== 'together' && rule.kind !== 'apart';

/** Who sat together before. */
export interface EarlierSet {
  readonly name: string;
  readonly groups: readonly (readonly EnrolmentId[])[];
}

export interface DealProblem {
  readonly students: readonly DealtStudent[];
  readonly groups: readonly DealtInto[];
  readonly rules: readonly Rule[];
  /** The same seed gives the same deal, on any machine. */
  readonly seed: number;
  /** How long it looks, as a multiple of the usual; 1 if left out. */
  readonly effort?: number;
}
