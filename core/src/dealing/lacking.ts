/** How many half-days a mask has. */
export function bitsOf(mask: number): number {
  let count = 0;
  for (let rest = mask; rest !== 0; rest &= rest - 1) count += 1;
  return count;
}

/** The least sum, over groups of these sizes, of the most that one of the members lacks: those who lack the most sit together, in the largest groups. Some
 * may have no seat, and they may be those who lack the most; someone alone in a group lacks nothing.
 * @param lacking by student, the most first. */
export function leastTogether(lacking: readonly number[], sizes: readonly number[]): number {
  const seats = sizes.reduce((sum, size) => sum + size, 0);
  const alone = sizes.filter((size) => size === 1).length;
  let at = Math.max(0, lacking.length - seats) + alone;
  let least = 0;
  for (const size of sizes.filter((each) => each > 1).sort((a, b) => b - a)) {
    least += lacking[at] ?? 0;
    at += size;
  }
  return least;
}
