import { describe, expect, it } from '@jest/globals';
import { countWords, fold, plainText } from './index.js';
import type { RichTextNode } from './index.js';

const paragraph = (...content: RichTextNode[]): RichTextNode => ({ type: 'paragraph', content });
const words = (text: string): RichTextNode => ({ type: 'text', text });
const doc: RichTextNode = {
  type: 'doc',
  content: [
    paragraph(
      words('Taste what '),
      { type: 'placeholder', attrs: { what: 'group-name' } },
      words(' set up.'),
    ),
    {
      type: 'bulletList',
      content: [
        { type: 'listItem', content: [paragraph(words('nose'))] },
        { type: 'listItem', content: [paragraph(words('sip'))] },
      ],
    },
  ],
};
const crock = { groupName: 'Crock', groupNumber: 1, memberNames: ['Noor', '한서연'] };

describe('rich text', () => {
  it('becomes plain text a line a block, with the blanks named or filled', () => {
    expect(plainText(doc)).toBe('Taste what {group-name} set up.\nnose\nsip');
    expect(plainText(doc, crock)).toBe('Taste what Crock set up.\nnose\nsip');
  });
  it('fills in the members by name', () =>
    expect(plainText(paragraph({ type: 'placeholder', attrs: { what: 'group-members' } }), crock)).toBe(
      'Noor, 한서연',
    ));
  it('counts words in scripts without spaces too', () => {
    expect(countWords('One two, three.')).toBe(3);
    expect(countWords('高橋ひなたです')).toBeGreaterThan(1);
  });
  it('folds accents and case away, in any script', () => {
    expect(fold('Zofia Wiśniewska-Trąbka')).toBe('zofia wisniewska-trabka');
    expect(fold('ΠΗΝΕΛΌΠΗ')).toBe(fold('πηνελοπη'));
    expect(fold('Łukasz Yıldızoğlu Søren')).toBe('lukasz yildizoglu soren');
  });
});
