import { Mark, mergeAttributes } from '@tiptap/core';

/** Words that lead to another page of the same wiki, by its id, so that a new title breaks no link. */
export const pageLinkMark = Mark.create({
  name: 'pageLink',
  inclusive: false,
  addAttributes: () => ({ pageId: { default: null } }),
  parseHTML: () => [{ tag: 'span[data-page]', getAttrs: (element) => ({ pageId: element.dataset['page'] }) }],
  renderHTML: ({ mark, HTMLAttributes }) => [
    'span',
    mergeAttributes(HTMLAttributes, { 'data-page': String(mark.attrs['pageId']) }),
    0,
  ],
});
