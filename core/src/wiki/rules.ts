import type { KindRules } from '../release/index.js';

export type WikiAct = 'write' | 'take-out';

/** Members write, staff may write along; every save keeps its author. */
export const wikiRules: KindRules<WikiAct> = {
  acts: { write: ['member', 'staff'], 'take-out': ['member', 'staff'] },
};
