import { readNumber } from './attributes.js';

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** How one group's numbers stand to the class's. */
export interface MeanOfGroup {
  /** null: no one in it has a number. */
  readonly mean: number | null;
  readonly isNear: boolean;
}

/** Near is within half a standard deviation of the class's mean: about as far as a group of four strays by chance. The Board and the report of a
 * deal measure with this one function.
 * @param groups the values of each group's members as they were written; what is no number does not count.
 * @returns null: no one has a number. */
export function meansOfGroups(
  groups: readonly (readonly (string | undefined)[])[],
): { readonly mean: number; readonly deviation: number; readonly groups: readonly MeanOfGroup[] } | null {
  const numbers = groups.map((values) => values.flatMap((value) => readNumber(value ?? '') ?? []));
  const all = numbers.flat();
  if (all.length === 0) return null;
  const middle = mean(all);
  const deviation = Math.sqrt(mean(all.map((value) => (value - middle) ** 2)));
  return {
    mean: middle,
    deviation,
    groups: numbers.map((own): MeanOfGroup => {
      if (own.length === 0) return { mean: null, isNear: true };
      const at = mean(own);
      return { mean: at, isNear: Math.abs(at - middle) <= deviation / 2 };
    }),
  };
}
