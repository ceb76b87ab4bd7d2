import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { RichTextNode } from '@jigsaw/core/text';
import { Brief, RichText } from './text.js';

const words = fc.string({ minLength: 1, maxLength: 12 });
const mark = fc.constantFrom(
  { type: 'bold' },
  { type: 'italic' },
  { type: 'link', attrs: { href: 'https://quillmere.example/' } },
);
const inline: fc.Arbitrary<RichTextNode> = fc.oneof(
  fc.record({ type: fc.constant('text'), text: words }),
  fc.record({
    type: fc.constant('text'),
    text: words,
    marks: fc.array(mark, { minLength: 1, maxLength: 2 }),
  }),
  fc.constantFrom('group-name', 'group-members').map((what) => ({ type: 'placeholder', attrs: { what } })),
  fc.record({
    type: fc.constant('placeholder'),
    attrs: fc.constant({ what: 'group-name' }),
    marks: fc.array(mark, { minLength: 1, maxLength: 2 }),
  }),
  fc.constant({ type: 'hardBreak' }),
);
const paragraph = fc.array(inline, { maxLength: 4 }).map((content) => ({ type: 'paragraph', content }));
const list = fc.array(paragraph, { minLength: 1, maxLength: 3 }).map((items) => ({
  type: 'bulletList',
  content: items.map((item) => ({ type: 'listItem', content: [item] })),
}));
const doc = fc
  .array(fc.oneof(paragraph, list), { maxLength: 5 })
  .map((content) => ({ type: 'doc' as const, content }));

const refusal = (value: unknown) => RichText.safeParse(value).error?.issues[0]?.message;
const holding = (node: object) => ({ type: 'doc', content: [node] });

describe('rich text at the edge', () => {
  it('lets through what the editor makes, unchanged', () =>
    fc.assert(fc.property(doc, (value) => expect(RichText.parse(value)).toEqual(value))));

  it.each([
    ['a script', holding({ type: 'script', content: [{ type: 'text', text: 'alert(1)' }] })],
    [
      'a frame deep inside',
      holding({
        type: 'bulletList',
        content: [{ type: 'listItem', content: [{ type: 'iframe', attrs: { src: 'x' } }] }],
      }),
    ],
    ['HTML in place of a document', '<p>hello</p>'],
    [
      'a mark that is not known',
      holding({
        type: 'paragraph',
        content: [{ type: 'text', text: 'x', marks: [{ type: 'style', attrs: { css: 'x' } }] }],
      }),
    ],
    [
      'a link that runs',
      holding({
        type: 'paragraph',
        content: [
          { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] },
        ],
      }),
    ],
    [
      'a link to data',
      holding({
        type: 'paragraph',
        content: [
          { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'data:text/html,x' } }] },
        ],
      }),
    ],
    [
      'a blank for someone else',
      holding({ type: 'paragraph', content: [{ type: 'placeholder', attrs: { what: 'password' } }] }),
    ],
  ])('refuses %s', (_what, value) => expect(RichText.safeParse(value).success).toBe(false));

  it('drops attributes it does not know', () =>
    expect(
      RichText.parse(holding({ type: 'paragraph', attrs: { onclick: 'alert(1)', class: 'x' }, content: [] })),
    ).toEqual(holding({ type: 'paragraph', attrs: {}, content: [] })));

  it('holds lines for some groups in a brief, and nowhere else', () => {
    const line = (groupIds: unknown, content: unknown[] = [{ type: 'paragraph', content: [] }]) =>
      holding({ type: 'onlyFor', attrs: { groupIds }, content });
    const groupId = '01a2231f-e319-70b9-b907-8a30316ce532';
    expect(Brief.parse(line([groupId]))).toEqual(line([groupId]));
    expect(Brief.safeParse(line([])).success).toBe(true);
    expect(Brief.safeParse(line(['Crock'])).success).toBe(false);
    expect(Brief.safeParse(line([groupId], [{ type: 'script', content: [] }])).success).toBe(false);
    expect(RichText.safeParse(line([groupId])).success).toBe(false);
  });

  it('says how long a text may be, and holds to it', () => {
    const long = (length: number) =>
      holding({ type: 'paragraph', content: [{ type: 'text', text: 'x'.repeat(length) }] });
    for (const length of [200_001, 900_000])
      expect(refusal(long(length))).toBe('The text is too long: 200,000 characters are the most.');
    expect(RichText.safeParse(long(200_000)).success).toBe(true);
  });

  it('refuses nesting without end', () => {
    let node: object = { type: 'paragraph', content: [] };
    for (let depth = 0; depth < 30; depth += 1) node = { type: 'blockquote', content: [node] };
    expect(RichText.safeParse(holding(node)).success).toBe(false);
  });
});
