import { fold } from '../text/index.js';
import { sortName } from './person.js';

type Named = Parameters<typeof sortName>[0];

/** People as a roster lists them: by the word they are sorted by, then by their whole names; accents and case do not matter, and scripts follow
 * one another as in Unicode. Each name is folded once, where a collator would do it again at each of n log n comparisons. */
export function inNameOrder<T extends Named>(people: readonly T[]): T[] {
  return people
    .map((person) => ({ person, first: fold(sortName(person)), second: fold(person.name) }))
    .sort(
      (a, b) => order(a.first, b.first) || order(a.second, b.second) || order(a.person.name, b.person.name),
    )
    .map(({ person }) => person);
}

const order = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
