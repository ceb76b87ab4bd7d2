import { sure } from '../lists/index.js';
import { oneLine } from '../text/index.js';

export interface PastedPerson {
  readonly address: string;
  /** Empty: the line gives none. */
  readonly name: string;
}

/** Who is on one line of what was pasted.
 * @returns beside: words that stand behind someone's address though a name stood before it, as a note does. */
export function peopleOfLine(line: string): { people: PastedPerson[]; beside: string } {
  const text = wordsOfLine(line);
  const spots = addressesIn(text);
  if (spots.length === 0) return { people: [], beside: '' };
  const between = [
    ...spots.map(({ from }, at) => text.slice(spots[at - 1]?.to ?? 0, from)),
    text.slice(sure(spots.at(-1)).to),
  ].map(asName);
  // A name stands before its address, unless nothing stands before the first.
  const isBefore = between[0] !== '' || between.every((words) => words === '');
  const people = spots.map(({ address }, at) => ({
    address,
    name: sure(between[isBefore ? at : at + 1]),
  }));
  return { people, beside: isBefore ? sure(between.at(-1)) : '' };
}

interface Spot {
  readonly address: string;
  /** Where it begins and ends, brackets and `mailto:` about it included. */
  readonly from: number;
  readonly to: number;
}

/** Signs that end an address on either side; no name of a mailbox has them unquoted. */
const ends = new Set(' \t\u00a0<>()[]{}"“”„«»,;:|'.split(''));

/** Every sign is looked at once or twice: what is pasted may be a page of them. */
function addressesIn(text: string): Spot[] {
  const spots: Spot[] = [];
  let earliest = 0;
  for (let at = text.indexOf('@'); at >= 0; at = text.indexOf('@', Math.max(at + 1, earliest))) {
    let from = at;
    while (from > earliest && !ends.has(sure(text[from - 1]))) from -= 1;
    let to = at + 1;
    while (to < text.length && !ends.has(sure(text[to]))) to += 1;
    earliest = to;
    const address = text
      .slice(from, to)
      .replace(/[.'’]$/, '')
      .replace(/^['‘]/, '');
    if (address.length < 3 || address.startsWith('@') || address.endsWith('@')) continue;
    if (text.slice(0, from).endsWith('mailto:')) from -= 'mailto:'.length;
    spots.push({ address, from, to });
  }
  return spots;
}

const markers = [
  /^>[> ]*/, // quoted in a mail
  /^(to|cc|bcc|from|an|von|kopie|à|de|para|a):\s*/iu,
  /^[-*•‣▪◦○●·–—+☐☑✓✔]\s+/u,
  /^\[[ x]?\]\s*/i,
  /^\(?\d{1,4}[):\]]\s*/,
  /^\d{1,4}\.(?=\s|[^\s@]+\s)\s*/, // an address may begin with a number and a dot
  /^\d{1,4}\s+(?=\D)/,
  /^(\(?[a-z]\)|[a-z]\.)\s+/,
  /^\(?[A-Z]\)\s+/, // “A. Lund” is a name
];

/** Whether a line is quoted or one of a list. */
export const isMarked = (line: string): boolean => markers.some((marker) => marker.test(line));

/** A line without the marks of lists and mails in front of its words, and with single blanks. */
export function wordsOfLine(line: string): string {
  let text = oneLine(line);
  for (const marker of markers) text = text.replace(marker, '');
  return text.trim();
}

const edges = new Set(' ,;:|<>()[]{}"“”„«»‘’\'`/–—-=•·*'.split(''));

/** What stands between addresses, without brackets, quote marks and separators about it. */
function asName(words: string): string {
  let from = 0;
  let to = words.length;
  while (from < to && edges.has(sure(words[from]))) from += 1;
  while (to > from && edges.has(sure(words[to - 1]))) to -= 1;
  const name = words.slice(from, to);
  if (/^([\d.]*|and|und|et|y|e|en|mailto)$/i.test(name)) return '';
  // “Ben Ek (he)” keeps what it says.
  return name.includes('(') && !name.includes(')') ? `${name})` : name;
}
