import { mergeAttributes, Node } from '@tiptap/core';
import { ReactNodeViewRenderer } from '@tiptap/react';
import { onlyFor } from '@jigsaw/core/release';
import { OnlyForLine } from './OnlyForLine.js';

/** Lines of a brief that only some groups read; who, is chosen above them. */
export const onlyForNode = Node.create({
  name: onlyFor,
  group: 'block',
  content: 'block+',
  defining: true,
  isolating: true,
  addAttributes: () => ({
    groupIds: {
      default: [],
      parseHTML: (element) => (element.dataset['onlyFor'] ?? '').split(' ').filter((id) => id !== ''),
      renderHTML: ({ groupIds }: { groupIds?: unknown }) => ({
        'data-only-for': Array.isArray(groupIds) ? groupIds.join(' ') : '',
      }),
    },
  }),
  parseHTML: () => [{ tag: 'div[data-only-for]' }],
  renderHTML: ({ HTMLAttributes }) => ['div', mergeAttributes(HTMLAttributes), 0],
  addNodeView: () => ReactNodeViewRenderer(OnlyForLine),
});
