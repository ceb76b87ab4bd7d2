import { sure } from '../lists/index.js';
/** Numbers in [0, 1), the same for the same seed on every machine: a 32-bit xorshift (Marsaglia, 2003). No operation in it, nor in what
 * uses it here, is rounded differently by another engine. */
export function randomFrom(seed: number): () => number {
  let state = (seed ^ 0x9e3779b9) >>> 0 || 1;
  const draw = () => {
    state ^= state << 13;
    state >>>= 0;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state / 0x1_0000_0000;
  };
  for (let warmUp = 0; warmUp < 8; warmUp += 1) draw(); // small seeds differ in few bits
  return draw;
}

/** Mixes the items where they stand: Fisher and Yates. */
export function shuffle<Item>(items: Item[], random: () => number): Item[] {
  for (let at = items.length - 1; at > 0; at -= 1) {
    const other = Math.floor(random() * (at + 1));
    [items[at], items[other]] = [sure(items[other]), sure(items[at])];
  }
  return items;
}

/** The items in an order that hangs on the seed alone; the given ones stay as they are. */
export const shuffled = <Item>(items: readonly Item[], seed: number): Item[] =>
  shuffle([...items], randomFrom(seed));
