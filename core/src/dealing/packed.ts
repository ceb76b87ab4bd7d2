import type { DealProblem } from './problem.js';
import type { Deal, Reached } from './weigh.js';

/** A deal as it travels: by student, in the problem's order, the place of their group among the groups; -1: none. */
export interface PackedDeal {
  readonly seats: readonly number[];
  readonly reached: readonly Reached[];
  readonly objective: number;
  readonly bound: number;
}

export function packDeal({ students, groups }: DealProblem, { seats, ...worth }: Deal): PackedDeal {
  const placeOf = new Map(groups.map((group, at) => [group.id, at]));
  return { ...worth, seats: students.map(({ id }) => placeOf.get(seats.get(id)!) ?? -1) };
}

export function unpackDeal({ students, groups }: DealProblem, { seats, ...worth }: PackedDeal): Deal {
  return { ...worth, seats: new Map(students.map(({ id }, at) => [id, groups[seats[at]!]?.id ?? null])) };
}
