/** Items by a key that several may share, each list in the order given. One pass, so that looking up costs nothing afterwards. */
export function groupedBy<Item, Key>(items: Iterable<Item>, keyOf: (item: Item) => Key): Map<Key, Item[]> {
  const byKey = new Map<Key, Item[]>();
  for (const item of items) {
    const key = keyOf(item);
    const list = byKey.get(key);
    if (list) list.push(item);
    else byKey.set(key, [item]);
  }
  return byKey;
}

/** Items by a key of their own; of two with the same key, the later one. */
export const keyedBy = <Item, Key>(items: Iterable<Item>, keyOf: (item: Item) => Key): Map<Key, Item> =>
  new Map(Array.from(items, (item) => [keyOf(item), item]));

/** With one item moved to its neighbour's place. */
export function shifted<Item>(items: readonly Item[], at: number, by: 1 | -1): Item[] {
  const next = [...items];
  next.splice(at + by, 0, ...next.splice(at, 1));
  return next;
}

/** Of what something holds, only what is named. */
export const only = <Whole extends object, Name extends keyof Whole>(
  whole: Whole,
  names: readonly Name[],
): Pick<Whole, Name> =>
  Object.fromEntries(names.map((name) => [name, whole[name]])) as unknown as Pick<Whole, Name>;
