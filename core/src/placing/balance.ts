import type { GroupId } from '../ids/index.js';
import type { AttributeKind } from '../course/index.js';
import { meansOfGroups, readHalfDays } from '../course/index.js';
import { sure } from '../lists/index.js';
import { counted, namesTogether } from '../text/index.js';

/** A group with what its members have of one attribute; undefined: nothing is known of that member. */
export interface MeasuredGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly values: readonly (string | undefined)[];
}

export interface Bar {
  readonly id: GroupId;
  /** In the meter's own unit; null: the group has no one to measure. */
  readonly value: number | null;
  /** Out of bounds: look here. */
  readonly isOut: boolean;
}

export interface Meter {
  readonly bars: readonly Bar[];
  /** Where the line is drawn, in the same unit. */
  readonly goal: number;
  /** What the bars come to, in words. */
  readonly finding: string;
}

/** How evenly an attribute is spread over groups, as far as something can be said of it. Text is measured by no one. */
export function meterOf(kind: AttributeKind, groups: readonly MeasuredGroup[]): Meter | null {
  if (kind === 'category') return ofCategory(groups);
  if (kind === 'number') return ofNumber(groups);
  return kind === 'half-days' ? ofHalfDays(groups) : null;
}

/** A bar is the greatest distance, in people, between a group's count of a value and its share of the class (CALC §2, spread):
 * under one person is as even as whole people can be. */
function ofCategory(groups: readonly MeasuredGroup[]): Meter | null {
  const all = groups.flatMap((group) => known(group));
  const kinds = [...new Set(all)];
  if (kinds.length < 2) return null;
  const total = new Map(kinds.map((kind) => [kind, all.filter((value) => value === kind).length]));
  const bars = groups.map((group): Bar => {
    const own = known(group);
    if (own.length === 0) return { id: group.id, value: null, isOut: false };
    const away = kinds.map((kind) =>
      Math.abs(
        own.filter((value) => value === kind).length - (own.length * sure(total.get(kind))) / all.length,
      ),
    );
    const value = Math.max(...away);
    return { id: group.id, value, isOut: value >= 1 };
  });
  const measured = bars.filter((bar) => bar.value !== null);
  const even = measured.filter((bar) => !bar.isOut).length;
  return {
    bars,
    goal: 1,
    finding:
      even === measured.length
        ? 'All mixed like the class'
        : `${even} of ${measured.length} mixed like the class`,
  };
}

/** A bar is the group's mean; out of bounds is what is not near the class's. */
function ofNumber(groups: readonly MeasuredGroup[]): Meter | null {
  const measured = meansOfGroups(groups.map((group) => group.values));
  if (measured === null || measured.deviation === 0) return null;
  const bars = groups.map((group, at): Bar => {
    const { mean, isNear } = sure(measured.groups[at]);
    return { id: group.id, value: mean, isOut: !isNear };
  });
  const means = bars.flatMap((bar) => bar.value ?? []);
  return {
    bars,
    goal: measured.mean,
    finding: `Means from ${figure(Math.min(...means))} to ${figure(Math.max(...means))}, class ${figure(measured.mean)}`,
  };
}

/** A bar is how many half-days everyone in the group has free; none is out of bounds for two or more people. */
function ofHalfDays(groups: readonly MeasuredGroup[]): Meter | null {
  const bars = groups.map((group): Bar => {
    const free = known(group).flatMap((value) => readHalfDays(value) ?? []);
    if (free.length < 2) return { id: group.id, value: null, isOut: false };
    const shared = [...sure(free[0])].filter((each) => free.every((own) => own.has(each))).length;
    return { id: group.id, value: shared, isOut: shared === 0 };
  });
  const measured = bars.filter((bar) => bar.value !== null);
  if (measured.length === 0) return null;
  const without = groups
    .filter((group) => bars.some((bar) => bar.id === group.id && bar.isOut))
    .map((group) => group.name);
  const least = Math.min(...measured.map((bar) => sure(bar.value)));
  return {
    bars,
    goal: 1,
    finding:
      without.length === 0
        ? `Each shares ${least} or more`
        : `${namesTogether(without, 2)} ${without.length === 1 ? 'shares' : 'share'} none`,
  };
}

/** A bar is the number of members; out of bounds is more than the places there are. */
export function sizeMeter(
  groups: readonly {
    readonly id: GroupId;
    readonly name: string;
    readonly members: number;
    readonly capacity: number | null;
  }[],
): Meter {
  const over = groups.filter((group) => group.capacity !== null && group.members > group.capacity);
  const free = groups.reduce(
    (sum, group) => sum + Math.max(0, (group.capacity ?? group.members) - group.members),
    0,
  );
  const capacities = groups.flatMap((group) => group.capacity ?? []);
  const goal =
    capacities.length > 0 ? sure(average(capacities)) : (average(groups.map((group) => group.members)) ?? 0);
  const sizes = groups.map((group) => group.members);
  const [first] = over;
  const parts = [
    ...(over.length > 0
      ? [
          over.length === 1 && first
            ? `${first.name} ${first.members - (first.capacity ?? 0)} over`
            : `${over.length} over`,
        ]
      : []),
    free > 0
      ? counted(free, 'free place')
      : capacities.length > 0
        ? 'no free place'
        : `${Math.min(...sizes)} to ${Math.max(...sizes)} members`,
  ];
  const isOver = new Set(over.map((group) => group.id));
  return {
    bars: groups.map((group) => ({ id: group.id, value: group.members, isOut: isOver.has(group.id) })),
    goal,
    finding: parts.join(' · '),
  };
}

const known = (group: MeasuredGroup): string[] => group.values.filter((value) => value !== undefined);
const average = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;
const figure = (value: number) => String(Math.round(value * 10) / 10);
