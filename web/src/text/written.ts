import type { JSONContent } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { isSafeLink } from '@jigsaw/contract/text';
import type { RichTextNode } from '@jigsaw/core/text';
import { onlyForNode } from './onlyForNode.js';
import { pageLinkMark } from './pageLinkMark.js';
import { placeholderNode } from './placeholderNode.js';

/** What is kept here is what the contract allows: no code, no underline, no strike. */
export const extensions = [
  StarterKit.configure({
    code: false,
    codeBlock: false,
    strike: false,
    underline: false,
    heading: { levels: [2, 3] },
    link: { openOnClick: false, protocols: ['http', 'https', 'mailto'], isAllowedUri: isSafeLink },
  }),
  placeholderNode,
  pageLinkMark,
];

/** What a brief may hold besides. */
export const briefExtensions = [...extensions, onlyForNode];

/** The editor's own type is mutable; it copies what it is given. */
export const asContent = (node: RichTextNode) => node as JSONContent;

/** Leaves out attributes that only the editor needs, so that an unchanged text is the same JSON. */
export function clean(node: RichTextNode): RichTextNode {
  const { type, text, marks, content } = node;
  const kept = Object.entries(node.attrs ?? {}).filter(
    ([key, value]) => value !== null && ['level', 'start', 'what', 'groupIds'].includes(key),
  );
  // No one sees a line that ends in bold.
  const keptMarks = (type === 'hardBreak' ? undefined : marks)?.map((mark) => {
    if (mark.type === 'link') return { type: 'link', attrs: { href: mark.attrs?.['href'] } };
    return mark.type === 'pageLink'
      ? { type: 'pageLink', attrs: { pageId: mark.attrs?.['pageId'] } }
      : { type: mark.type };
  });
  return {
    type,
    ...(kept.length > 0 ? { attrs: Object.fromEntries(kept) } : {}),
    ...(text === undefined ? {} : { text }),
    ...(keptMarks ? { marks: keptMarks } : {}),
    ...(content ? { content: content.map(clean) } : {}),
  };
}
