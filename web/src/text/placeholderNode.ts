import { mergeAttributes, Node } from '@tiptap/core';
import { sayPlaceholder } from './RichText.js';

/** A blank that each group's copy fills with its own name, number or members. */
export const placeholderNode = Node.create({
  name: 'placeholder',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({ what: { default: 'group-name' } }),
  parseHTML: () => [
    { tag: 'span[data-placeholder]', getAttrs: (element) => ({ what: element.dataset['placeholder'] }) },
  ],
  renderHTML: ({ node, HTMLAttributes }) => {
    const what = node.attrs['what'] as 'group-name';
    return ['span', mergeAttributes(HTMLAttributes, { 'data-placeholder': what }), sayPlaceholder(what)];
  },
});
