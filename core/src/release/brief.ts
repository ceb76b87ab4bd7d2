import type { GroupId } from '../ids/index.js';
import type { RichTextNode } from '../text/index.js';

/** The block of a brief that only some groups read. */
export const onlyFor = 'onlyFor';

/** The groups whose line this is; none: no one's yet. */
export function groupsOfLine(node: RichTextNode): readonly GroupId[] {
  const ids = node.attrs?.['groupIds'];
  return Array.isArray(ids) ? (ids as GroupId[]) : [];
}

/** The same in another course, which has other groups: each line for some groups is no one's until someone says whose it is there. */
export const briefElsewhere = (node: RichTextNode): RichTextNode => ({
  ...node,
  ...(node.type === onlyFor && { attrs: { ...node.attrs, groupIds: [] } }),
  ...(node.content && { content: node.content.map(briefElsewhere) }),
});

/** In whose copy a brief is read, and who reads it. */
export interface BriefReader {
  /** null: the one copy for all. */
  readonly copyOf: GroupId | null;
  /** The groups that the reader is in; null: staff and observers, who read what the copy's group reads, and in a copy for all every line. */
  readonly groups: readonly GroupId[] | null;
}

/** A brief as one reader has it: lines of other groups are gone, and nothing tells that they were there. */
export function briefFor(brief: RichTextNode, reader: BriefReader): RichTextNode {
  const content = (brief.content ?? []).flatMap((node) => linesFor(node, reader));
  return { ...brief, content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

function linesFor(node: RichTextNode, reader: BriefReader): readonly RichTextNode[] {
  const content = node.content?.flatMap((child) => linesFor(child, reader));
  const shown = content ? { ...node, content } : node;
  if (node.type !== onlyFor) return [shown];
  const named = groupsOfLine(node);
  const { copyOf, groups } = reader;
  if (copyOf !== null && !named.includes(copyOf)) return [];
  if (groups !== null) return groups.some((id) => named.includes(id)) ? (content ?? []) : [];
  // Staff are told that others do not read it, where it stands in one copy for all.
  return copyOf === null ? [shown] : (content ?? []);
}
