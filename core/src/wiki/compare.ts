import { diffArrays } from 'diff';
import { sure } from '../lists/index.js';
import { countWords } from '../text/index.js';

/** A stretch of text that is the same in both versions, or stands in only one of them. */
export interface Change {
  readonly kind: 'same' | 'added' | 'removed';
  readonly text: string;
}

/** Two long texts that have little in common would take very long to align; beyond so many edits a stretch counts as rewritten. */
const mostEdits = 2000;

/** What turns `before` into `after`, by words. Lines are aligned first and words within the lines that differ, so that a long
 * page with small changes costs little. The same and the removed stretches together are `before`, the same and the added `after`. */
export function compare(before: string, after: string): Change[] {
  const byLine = align(lines(before), lines(after));
  const changes: Change[] = [];
  for (let at = 0; at < byLine.length; at += 1) {
    const one = sure(byLine[at]);
    const other = byLine[at + 1];
    if (one.kind === 'removed' && other?.kind === 'added') {
      changes.push(...align(words(one.text), words(other.text)));
      at += 1;
    } else changes.push(one);
  }
  return merged(changes);
}

/** The text after the changes, from the text before them.
 * @throws RangeError if the changes were made from another text. */
export function applyChanges(before: string, changes: readonly Change[]): string {
  let at = 0;
  let after = '';
  for (const { kind, text } of changes) {
    if (kind !== 'added') {
      if (!before.startsWith(text, at)) throw new RangeError(`the changes do not fit this text at ${at}`);
      at += text.length;
    }
    if (kind !== 'removed') after += text;
  }
  if (at !== before.length) throw new RangeError(`the changes end at ${at} of ${before.length}`);
  return after;
}

/** How many words were added and removed. */
export function countChanges(changes: readonly Change[]): {
  readonly added: number;
  readonly removed: number;
} {
  const wordsOf = (kind: Change['kind']) =>
    changes.reduce((sum, change) => sum + (change.kind === kind ? countWords(change.text) : 0), 0);
  return { added: wordsOf('added'), removed: wordsOf('removed') };
}

const lines = (text: string) => text.split(/(?<=\n)/);
/** Words, the spaces between them and every other sign on its own, so that a comma that moves is only a comma. */
const words = (text: string) => text.match(/\p{L}[\p{L}\p{M}\p{N}'’]*|\p{N}+|\s+|./gsu) ?? [];

function align(before: readonly string[], after: readonly string[]): Change[] {
  const parts = diffArrays([...before], [...after], { maxEditLength: mostEdits }) as
    { readonly value: readonly string[]; readonly added: boolean; readonly removed: boolean }[] | undefined;
  if (parts === undefined) return merged([change('removed', before), change('added', after)]);
  return merged(
    parts.map((part) => change(part.added ? 'added' : part.removed ? 'removed' : 'same', part.value)),
  );
}

const change = (kind: Change['kind'], pieces: readonly string[]): Change => ({ kind, text: pieces.join('') });

/** Neighbours of one kind become one; within a changed stretch what was removed stands before what was added. */
function merged(changes: readonly Change[]): Change[] {
  const out: Change[] = [];
  let removed = '';
  let added = '';
  const flush = () => {
    if (removed !== '') out.push({ kind: 'removed', text: removed });
    if (added !== '') out.push({ kind: 'added', text: added });
    removed = '';
    added = '';
  };
  for (const [at, { kind, text }] of changes.entries()) {
    if (text === '') continue;
    // A space between two rewritten words is no place to rest the eye: the words are read as one stretch.
    const isGap =
      kind === 'same' && removed !== '' && added !== '' && /^ +$/.test(text) && changes[at + 1] !== undefined;
    if (kind === 'removed' || isGap) removed += text;
    if (kind === 'added' || isGap) added += text;
    if (kind === 'same' && !isGap) {
      flush();
      const last = out.at(-1);
      if (last?.kind === 'same') out[out.length - 1] = { kind: 'same', text: last.text + text };
      else out.push({ kind, text });
    }
  }
  flush();
  return out;
}
