import { diffArrays } from 'diff';
import type { RichTextNode } from '../text/index.js';

/** What became of a text's blocks: which stayed, and what stands new before each of them, and after the last. */
interface Edits {
  readonly isKept: readonly boolean[];
  readonly inserted: ReadonlyMap<number, readonly RichTextNode[]>;
}

/** Beyond so many changed blocks two texts count as two: comparing more of them takes long, and nothing is lost by it. */
const mostEdits = 2_000;

/** One text of two that were written on top of the same: what either of them added or changed stands in it, theirs first where it is the same place, and
 * what either took out is gone. Of a paragraph that both changed, both are there: nothing that someone wrote is lost. */
export function keepBoth(base: RichTextNode, mine: RichTextNode, theirs: RichTextNode): RichTextNode {
  const blocks = base.content ?? [];
  const [here, there] = [editsOf(base, mine), editsOf(base, theirs)];
  const content: RichTextNode[] = [];
  for (let at = 0; at <= blocks.length; at += 1) {
    const [first, second] = [there.inserted.get(at) ?? [], here.inserted.get(at) ?? []];
    content.push(...first);
    if (keysOf(first).join() !== keysOf(second).join()) content.push(...second);
    const block = blocks[at];
    if (block && here.isKept[at] && there.isKept[at]) content.push(block);
  }
  return { ...theirs, content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

function editsOf(base: RichTextNode, other: RichTextNode): Edits {
  const [before, after] = [base.content ?? [], other.content ?? []];
  const parts = diffArrays(keysOf(before), keysOf(after), { maxEditLength: mostEdits });
  if (!parts) return { isKept: before.map(() => false), inserted: new Map([[0, after]]) };
  const isKept: boolean[] = [];
  const inserted = new Map<number, readonly RichTextNode[]>();
  let next = 0;
  for (const { added, removed, count = 0 } of parts) {
    if (removed) isKept.push(...Array<boolean>(count).fill(false));
    else if (added)
      inserted.set(isKept.length, [
        ...(inserted.get(isKept.length) ?? []),
        ...after.slice(next, next + count),
      ]);
    else isKept.push(...Array<boolean>(count).fill(true));
    if (!removed) next += count;
  }
  return { isKept, inserted };
}

const keysOf = (blocks: readonly RichTextNode[]) => blocks.map((block) => JSON.stringify(block));
