import { groupedBy, sure } from '../lists/index.js';
import type { Difference, Held } from './differences.js';

/** The same difference, of so many students. */
export interface Told extends Pick<Difference, 'activityId' | 'before' | 'after'> {
  readonly students: number;
}

/** What is told once for the members of many groups, each with their own group’s copy. */
export interface Folded<Each extends Told> {
  /** Any of those that are alike. */
  readonly first: Each;
  readonly students: number;
  /** How many groups it is told of; null: of the copies that `first` names. */
  readonly eachOf: number | null;
}

/** One group after the other is read as long as there are few; where the same happens to more than `most` groups, it is told once, where the first of them stood. */
export function foldAlike<Each extends Told>(told: readonly Each[], most: number): readonly Folded<Each>[] {
  const alike = groupedBy(told, (each) => shapeOf(each));
  const isFolded = (each: Each) => sure(alike.get(shapeOf(each))).length > most;
  return told.flatMap((first): Folded<Each>[] => {
    if (!isFolded(first)) return [{ first, students: first.students, eachOf: null }];
    const all = sure(alike.get(shapeOf(first)));
    if (all[0] !== first) return [];
    return [{ first, students: all.reduce((sum, { students }) => sum + students, 0), eachOf: all.length }];
  });
}

/** What happens, whichever group it happens to. What is about more copies than that of one group is like nothing else. */
function shapeOf({ activityId, before, after }: Told): string {
  const of = new Set([...before.own, ...after.own].map(({ groupId }) => groupId));
  const isOfOne = of.size === 1 && !of.has(null);
  const held = ({ own, ...rest }: Held) => [rest, isOfOne ? own.map(({ due }) => due) : own];
  return JSON.stringify([activityId, isOfOne, held(before), held(after)]);
}
