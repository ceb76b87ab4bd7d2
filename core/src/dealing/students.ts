import type { EnrolmentId, GroupId } from '../ids/index.js';

/** Someone who is to be dealt a place, or keeps theirs. */
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
  /** Anyone who is in it stays, and no one comes. */
  readonly isLocked: boolean;
}
