import { describe, expect, it } from '@jest/globals';
import { Editor } from '@tiptap/react';
import { Brief, RichText } from '@jigsaw/contract/text';
import type { RichTextNode } from '@jigsaw/core/text';
import { plainText } from '@jigsaw/core/text';
import { briefExtensions, clean, extensions } from './written.js';

const begun = {
  type: 'doc',
  content: [
    {
      type: 'paragraph',
      content: [
        { type: 'text', text: 'The log of ' },
        { type: 'placeholder', attrs: { what: 'group-name' } },
        { type: 'hardBreak' },
        { type: 'text', text: 'by noon.' },
      ],
    },
  ],
};
const editorOn = (content: string | object) => new Editor({ extensions, content });
const made = (editor: Editor) => clean(editor.getJSON() as RichTextNode);
/** What the server makes of it: the same, or a refusal. */
const kept = (text: RichTextNode) => RichText.safeParse(text).data;

describe('what is written in the editor', () => {
  it.each<[string, (editor: Editor) => unknown]>([
    ['bold', (editor) => editor.commands.toggleBold()],
    ['italic and bold', (editor) => editor.chain().toggleItalic().toggleBold().run()],
    ['a list', (editor) => editor.commands.toggleOrderedList()],
    ['a heading', (editor) => editor.commands.toggleHeading({ level: 2 })],
    ['a link', (editor) => editor.commands.setLink({ href: 'https://quillmere.example/' })],
    [
      'a link to a page',
      (editor) => editor.commands.setMark('pageLink', { pageId: '01a2231f-e319-70b9-b907-8a30316ce532' }),
    ],
  ])('can be kept, with blanks and all, when all of it is made %s', (_what, make) => {
    const editor = editorOn(begun);
    editor.commands.selectAll();
    make(editor);
    const text = made(editor);
    expect(text).not.toEqual(begun);
    expect(kept(text)).toEqual(text);
  });

  it('can be kept with lines for some groups, also copied and pasted', () => {
    const groupId = '01a2231f-e319-70b9-b907-8a30316ce532';
    const says = { type: 'paragraph', content: [{ type: 'text', text: 'You changed the salt.' }] };
    const line = { type: 'onlyFor', attrs: { groupIds: [groupId] }, content: [says] };
    const editor = new Editor({
      extensions: briefExtensions,
      content: { type: 'doc', content: [line, says] },
    });
    const text = made(editor);
    expect(text).toEqual({ type: 'doc', content: [line, says] });
    expect(Brief.parse(text)).toEqual(text);
    const pasted = made(new Editor({ extensions: briefExtensions, content: editor.getHTML() }));
    expect(pasted).toEqual(text);
    // Where there are no groups to choose from, the words stay and are for everyone.
    expect(kept(made(editorOn(editor.getHTML())))).toEqual({ type: 'doc', content: [says, says] });
  });

  it('can be kept whatever was pasted, without the links that cannot be', () => {
    const editor = editorOn(
      `<h1>Plan</h1><p>Call <a href="tel:+351">us</a>, <a href="ftp://old.example/">fetch</a> or <a href="javascript:alert(1)">press</a>;
       <a href="https://quillmere.example/">read</a> <a href="/here">here</a>.</p><pre><code>x = 1</code></pre><table><tr><td>cell</td></tr></table>
       <ol start="3" type="a"><li><p>three</p></li></ol><img src="x.png" alt="x"><p style="color:red"><u>low</u> <s>gone</s></p>`,
    );
    const text = made(editor);
    expect(kept(text)).toEqual(text);
    expect(plainText(text)).toMatch(/Call us, fetch or press;\s+read here\./);
    expect(JSON.stringify(text).match(/"href":"[^"]*"/g)).toEqual(['"href":"https://quillmere.example/"']);
  });
});
