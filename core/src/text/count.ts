const figures = new Intl.NumberFormat('en');

/** "1 student", "3 students", "1,203 students": a number beside the noun that it counts.
 * @param plural where it is not the noun with an s. */
export const counted = (count: number, noun: string, plural = `${noun}s`): string =>
  `${figures.format(count)} ${count === 1 ? noun : plural}`;

/** "Ada", "Ada and Ben", "Ada, Ben and Cleo"; of more than `most`, the first of them and "and 3 more". */
export function namesTogether(names: readonly string[], most = Infinity): string {
  if (names.length > most) return `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
  const last = names.at(-1) ?? '';
  return names.length < 2 ? last : `${names.slice(0, -1).join(', ')} and ${last}`;
}
