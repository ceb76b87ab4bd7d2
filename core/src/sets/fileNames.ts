import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';

/** What groups, or sets, are called in a file: such as share a name, or differ by case and accents alone, carry their number.
 * @param things of one set, or the sets of a course; numbers differ. */
export function fileNames<Id>(
  things: readonly { readonly id: Id; readonly number: number; readonly name: string }[],
): ReadonlyMap<Id, string> {
  let named = things.map((thing) => ({ ...thing, label: thing.name }));
  for (;;) {
    const count = new Map<string, number>();
    for (const { label } of named) count.set(fold(label), (count.get(fold(label)) ?? 0) + 1);
    const isShared = (label: string) => sure(count.get(fold(label))) > 1;
    if (!named.some(({ label }) => isShared(label)))
      return new Map(named.map(({ id, label }) => [id, label]));
    named = named.map((each) =>
      isShared(each.label) ? { ...each, label: `${each.label} (${each.number})` } : each,
    );
  }
}

/** What the sets of a course are called in a file; in their order, without those that are archived. */
export const setFileNames = <Id>(sets: readonly { readonly id: Id; readonly name: string }[]) =>
  fileNames(sets.map(({ id, name }, at) => ({ id, name, number: at + 1 })));
