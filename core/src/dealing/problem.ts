import type { EnrolmentId, GroupId } from '../ids/index.js';
import type { DealtInto, DealtStudent } from './students.js';
import type { Rule } from './wishes.js';

export interface DealProblem {
  readonly students: readonly DealtStudent[];
  readonly groups: readonly DealtInto[];
  readonly rules: readonly Rule[];
  /** The same seed gives the same deal, on any machine. */
  readonly seed: number;
  /** How long it looks, as a multiple of the usual; 1 if left out. */
  readonly effort?: number;
  /** A seating to improve: where it keeps all that must hold, the deal goes on from it and comes to nothing worse. */
  readonly from?: ReadonlyMap<EnrolmentId, GroupId | null>;
}
