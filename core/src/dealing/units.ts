import type { EnrolmentId, GroupId } from '../ids/index.js';
import type { DealProblem } from './problem.js';

/** A problem by whole numbers: students and groups by their index. */
export interface Compiled {
  readonly count: number;
  readonly groupCount: number;
  /** Students who move as one; each is in exactly one unit. */
  readonly units: readonly (readonly number[])[];
  readonly unitOf: Int32Array;
  /** By unit: the group it stays in; -1: free. */
  readonly fixed: Int32Array;
  /** Who must not sit together. */
  readonly apart: readonly ReadonlySet<number>[];
  /** Most members a group may have; Infinity: no limit. Anyone who is fixed in it fits, also where they are more. */
  readonly capacity: readonly number[];
  readonly isLocked: readonly boolean[];
  readonly indexOf: ReadonlyMap<EnrolmentId, number>;
  readonly groupIndexOf: ReadonlyMap<GroupId, number>;
}

/** Rules that name people who are not in the problem any more hold for the others. */
export function compile({ students, groups, rules }: DealProblem): Compiled {
  const indexOf = new Map(students.map((student, at) => [student.id, at]));
  const groupIndexOf = new Map(groups.map((group, at) => [group.id, at]));
  const apart = students.map(() => new Set<number>());
  const parent = students.map((_, at) => at);
  const root = (at: number): number => (parent[at] === at ? at : (parent[at] = root(parent[at]!)));
  for (const rule of rules) {
    if (rule.kind !== 'together' && rule.kind !== 'apart') continue;
    const named = [...new Set(rule.students.flatMap((id) => indexOf.get(id) ?? []))];
    for (const [at, one] of named.entries()) {
      if (rule.kind === 'together') parent[root(one)] = root(named[0]!);
      else
        for (const other of named.slice(at + 1)) {
          apart[one]!.add(other);
          apart[other]!.add(one);
        }
    }
  }
  const members = new Map<number, number[]>();
  for (const at of students.keys()) members.set(root(at), [...(members.get(root(at)) ?? []), at]);
  const units = [...members.values()];
  const unitOf = new Int32Array(students.length);
  units.forEach((unit, at) => unit.forEach((student) => (unitOf[student] = at)));
  const fixedIn = students.map((student) =>
    student.fixedIn === null ? -1 : (groupIndexOf.get(student.fixedIn) ?? -1),
  );
  const fixed = Int32Array.from(
    units,
    (unit) => unit.map((student) => fixedIn[student]!).find((group) => group >= 0) ?? -1,
  );
  const held = groups.map((_, group) => fixedIn.filter((at) => at === group).length);
  return {
    count: students.length,
    groupCount: groups.length,
    units,
    unitOf,
    fixed,
    apart,
    capacity: groups.map((group, at) => Math.max(group.capacity ?? Infinity, held[at]!)),
    isLocked: groups.map((group) => group.isLocked),
    indexOf,
    groupIndexOf,
  };
}
