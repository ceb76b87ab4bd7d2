import type { KindFacts, KindRules } from '../release/index.js';

/** A place where each group meets all term, or the class. */
export const callFacts: KindFacts = {
  name: 'call',
  modes: () => ['own', 'common'],
  markFor: () => 'student',
  isHandedIn: false,
  isWork: false,
  isMarked: false,
};

export type CallAct = 'step-in' | 'set-door';

export const callRules: KindRules<CallAct> = {
  acts: { 'step-in': ['member', 'staff'], 'set-door': ['member', 'staff'] },
};
