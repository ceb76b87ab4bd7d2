/** Letters for a group's number: A to Z, then AA, AB and so on. */
export function lettersOf(number: number): string {
  let left = number;
  let letters = '';
  while (left > 0) {
    left -= 1;
    letters = String.fromCharCode(65 + (left % 26)) + letters;
    left = Math.floor(left / 26);
  }
  return letters;
}

/** The name of group `number` by a pattern: `Bench {n}` or `Bench {A}`. A pattern without a blank gets the number behind it,
 * so that two groups of a set never start with one name. */
export function nameByPattern(pattern: string, number: number): string {
  const trimmed = pattern.trim() || 'Group';
  if (!/\{[nA]\}/.test(trimmed)) return `${trimmed} ${number}`;
  return trimmed.replaceAll('{n}', String(number)).replaceAll('{A}', lettersOf(number));
}

/** Names for `count` groups: the pasted ones first, then by the pattern. Blank lines of the list are passed over. */
export function namesFor(count: number, pattern: string, pasted: readonly string[] = []): string[] {
  const given = pasted.map((name) => name.trim()).filter((name) => name !== '');
  return Array.from({ length: count }, (_, at) => given[at] ?? nameByPattern(pattern, at + 1));
}
