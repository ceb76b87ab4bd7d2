import type { GroupId } from '../ids/index.js';

/** A group as a place for newcomers, with what its members have of each category. */
export interface FittingGroup {
  readonly id: GroupId;
  readonly members: number;
  /** null: no limit. */
  readonly capacity: number | null;
  readonly isLocked: boolean;
  /** By the attribute's name. */
  readonly values: Readonly<Record<string, readonly (string | undefined)[]>>;
}

export interface Fit {
  readonly id: GroupId;
  /** Places that are free before they come; null: there is no limit. */
  readonly free: number | null;
  /** Attributes whose mix comes nearer to the class, and such as go further from it. */
  readonly evens: readonly string[];
  readonly tilts: readonly string[];
}

/** A mix moves if it changes by more than this (squared people). */
const noticeable = 0.25;

/** Where newcomers fit, the best first: groups with room for all of them, by what the spread of each attribute costs more there
 * (CALC §2, spread), then the fewest members, then their order.
 * @param comers what the newcomers have of each attribute.
 * @param classOf how often each value is found in the class, by attribute. */
export function whereTheyFit(
  groups: readonly FittingGroup[],
  comers: {
    readonly count: number;
    readonly values: Readonly<Record<string, readonly (string | undefined)[]>>;
  },
  classOf: ReadonlyMap<string, ReadonlyMap<string, number>>,
): Fit[] {
  return groups
    .filter(
      (group) =>
        !group.isLocked && (group.capacity === null || group.members + comers.count <= group.capacity),
    )
    .map((group) => {
      const changes = [...classOf].map(([name, totals]) => {
        const before = known(group.values[name]);
        return {
          name,
          by: spreadCost([...before, ...known(comers.values[name])], totals) - spreadCost(before, totals),
        };
      });
      return {
        fit: {
          id: group.id,
          free: group.capacity === null ? null : group.capacity - group.members,
          evens: changes.filter(({ by }) => by < -noticeable).map(({ name }) => name),
          tilts: changes.filter(({ by }) => by > noticeable).map(({ name }) => name),
        },
        cost: changes.reduce((sum, { by }) => sum + by, 0),
        members: group.members,
      };
    })
    .sort((a, b) => a.cost - b.cost || a.members - b.members)
    .map(({ fit }) => fit);
}

/** Σ over values of (count − size · total / n)²; 0 for no one. */
function spreadCost(values: readonly string[], totals: ReadonlyMap<string, number>): number {
  const everyone = [...totals.values()].reduce((sum, count) => sum + count, 0);
  if (everyone === 0) return 0;
  return [...totals].reduce(
    (sum, [value, total]) =>
      sum + (values.filter((each) => each === value).length - (values.length * total) / everyone) ** 2,
    0,
  );
}

const known = (values: readonly (string | undefined)[] = []): string[] =>
  values.filter((value) => value !== undefined);
