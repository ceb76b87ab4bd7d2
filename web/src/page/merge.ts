/** What came of two people changing the same thing at once. */
export interface Merged<Value> {
  /** What either of them changed; where both changed one part, one's own. */
  readonly value: Value;
  /** Parts that both changed, each to something else: "feedback", "picks.method". */
  readonly disputed: readonly string[];
}

/** Puts what was changed here on top of what someone else wrote meanwhile, part by part.
 * @param base what both began from
 * @param deep parts that are themselves made of parts: records, or maps */
export function mergeParts<Value extends object>(
  base: Value,
  mine: Value,
  theirs: Value,
  deep: readonly (keyof Value)[] = [],
): Merged<Value> {
  const disputed: string[] = [];
  const decide = (path: string, was: unknown, here: unknown, there: unknown): unknown => {
    if (isSame(here, was)) return there;
    if (!isSame(there, was) && !isSame(here, there)) disputed.push(path);
    return here;
  };
  const merged = Object.fromEntries(
    (Object.keys(mine) as (keyof Value & string)[]).map((key) => {
      if (!deep.includes(key)) return [key, decide(key, base[key], mine[key], theirs[key])];
      const [was, here, there] = [partsOf(base[key]), partsOf(mine[key]), partsOf(theirs[key])];
      const parts = [...new Set([...was.keys(), ...here.keys(), ...there.keys()])].flatMap((part) => {
        const value = decide(`${key}.${part}`, was.get(part), here.get(part), there.get(part));
        return value === undefined ? [] : [[part, value] as const];
      });
      return [key, mine[key] instanceof Map ? new Map(parts) : Object.fromEntries(parts)];
    }),
  );
  return { value: merged as Value, disputed };
}

const partsOf = (value: unknown): ReadonlyMap<string, unknown> =>
  value instanceof Map ? (value as ReadonlyMap<string, unknown>) : new Map(Object.entries(value ?? {}));

/** As JSON says it; a part that is not there is one, too. */
const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
