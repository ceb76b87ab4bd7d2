import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';

/** What the values of a roster attribute are. Dealing spreads categories and numbers, and looks for common free half-days. */
export type AttributeKind = 'category' | 'number' | 'half-days' | 'text';

export const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const halves = ['am', 'pm'] as const;
export type HalfDay = `${(typeof days)[number]} ${(typeof halves)[number]}`;

/** Every half-day of the week in order: Mon am, Mon pm, Tue am, … */
export const halfDays: readonly HalfDay[] = days.flatMap((day) =>
  halves.map((half): HalfDay => `${day} ${half}`),
);

const halfByWord = new Map<string, 'am' | 'pm'>([
  ...['am', 'morning', 'mornings', 'a.m.'].map((word) => [word, 'am'] as const),
  ...['pm', 'afternoon', 'afternoons', 'p.m.'].map((word) => [word, 'pm'] as const),
]);

/** The half-days that a text names: "Mon am, Tuesday afternoon, Fri" (a day alone is both halves), "none" for none at all.
 * @returns null if any part of it is something else. */
export function readHalfDays(text: string): ReadonlySet<HalfDay> | null {
  const parts = fold(text)
    .split(/[,;/|\n]+/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  if (parts.length === 0) return null;
  if (parts.length === 1 && parts[0] === 'none') return new Set();
  const found = new Set<HalfDay>();
  for (const part of parts) {
    const [dayWord, halfWord, ...more] = part.split(/\s+/);
    const day = days.find((each) => isDay(sure(dayWord), each));
    const half = halfWord === undefined ? null : halfByWord.get(halfWord);
    if (day === undefined || half === undefined || more.length > 0) return null;
    for (const each of half === null ? halves : [half]) found.add(`${day} ${each}`);
  }
  return found;
}

/** Three letters or more of an English day's name, or the whole with an s. */
const isDay = (word: string, day: (typeof days)[number]): boolean =>
  word.length >= 3 && `${fullDays[day]}s`.startsWith(word);
const fullDays = {
  Mon: 'monday',
  Tue: 'tuesday',
  Wed: 'wednesday',
  Thu: 'thursday',
  Fri: 'friday',
  Sat: 'saturday',
  Sun: 'sunday',
} as const;

/** The one way in which half-days are written: in the week's order, whole days by their name alone. */
export function writeHalfDays(chosen: ReadonlySet<HalfDay>): string {
  const parts = days.flatMap((day) => {
    const own = halves.filter((half) => chosen.has(`${day} ${half}`));
    return own.length === 2 ? [day] : own.map((half) => `${day} ${half}`);
  });
  return parts.length === 0 ? 'none' : parts.join(', ');
}

/** When someone is free, as one of their attributes says.
 * @param kinds what attributes were said to be; one that nothing is said of counts if its value names half-days.
 * @returns null: none says. */
export function halfDaysSaid(
  attributes: Readonly<Record<string, string>>,
  kinds: Readonly<Record<string, AttributeKind>>,
): ReadonlySet<HalfDay> | null {
  for (const [name, value] of Object.entries(attributes)) {
    if ((kinds[name] ?? 'half-days') !== 'half-days') continue;
    const said = readHalfDays(value);
    if (said) return said;
  }
  return null;
}

/** @returns null: this is no number. Both decimal signs are taken. */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return /^[+-]?\d+(\.\d+)?$/.test(plain) ? Number(plain) : null;
}

/** Whether a value can be used as what its attribute is. */
export function fitsKind(value: string, kind: AttributeKind): boolean {
  if (kind === 'number') return readNumber(value) !== null;
  if (kind === 'half-days') return readHalfDays(value) !== null;
  return true;
}

const mostCategories = 12;
const longestCategory = 40;
const recurring = 0.7;
const shareOfHalfDays = 0.8;

/** What an attribute seems to be, from the values that people have of it. Each different value is read once, however many have it. */
export function guessKind(values: readonly string[]): AttributeKind {
  if (values.length === 0) return 'text';
  const times = new Map<string, number>();
  for (const value of values) times.set(value, (times.get(value) ?? 0) + 1);
  const distinct = [...times.keys()];
  const halfDayed = distinct.filter((value) => fitsKind(value, 'half-days'));
  if (halfDayed.reduce((sum, value) => sum + sure(times.get(value)), 0) >= values.length * shareOfHalfDays)
    return 'half-days';
  if (distinct.every((value) => fitsKind(value, 'number'))) return 'number';
  // Many short words of which some return, such as languages, are a category too.
  const isRecurring =
    distinct.length <= values.length * recurring &&
    distinct.every((value) => value.length <= longestCategory);
  return distinct.length <= mostCategories || isRecurring ? 'category' : 'text';
}
