import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { GroupId } from '../ids/index.js';
import type { RichTextNode } from '../text/index.js';
import { plainText } from '../text/index.js';
import { briefFor, onlyFor } from './brief.js';

const [crock, tun, cask] = ['crock', 'tun', 'cask'].map((id) => id as GroupId) as [GroupId, GroupId, GroupId];
const says = (text: string): RichTextNode => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const only = (groupIds: readonly GroupId[], ...content: RichTextNode[]): RichTextNode => ({
  type: onlyFor,
  attrs: { groupIds },
  content,
});
const brief: RichTextNode = {
  type: 'doc',
  content: [says('Taste it.'), only([crock, tun], says('You changed the salt.')), says('Then write.')],
};
const read = (copyOf: GroupId | null, groups: readonly GroupId[] | null) =>
  plainText(briefFor(brief, { copyOf, groups })).split('\n');

describe('a line for some groups', () => {
  it('is read in their copies by their members and by staff, and looks like any other', () => {
    for (const groups of [[crock], null])
      expect(briefFor(brief, { copyOf: crock, groups })).toEqual({
        type: 'doc',
        content: [says('Taste it.'), says('You changed the salt.'), says('Then write.')],
      });
  });

  it('is not there for other groups, nor for those who read along', () => {
    expect(read(cask, [cask])).toEqual(['Taste it.', 'Then write.']);
    expect(read(cask, null)).toEqual(['Taste it.', 'Then write.']);
    expect(read(crock, [cask])).toEqual(['Taste it.', 'Then write.']);
    expect(read(cask, [crock])).toEqual(['Taste it.', 'Then write.']);
    expect(JSON.stringify(briefFor(brief, { copyOf: cask, groups: [cask] }))).not.toContain(onlyFor);
  });

  it('in one copy for all is read by those who are in the groups, and shown to staff as such', () => {
    expect(read(null, [tun])).toContain('You changed the salt.');
    expect(read(null, [cask])).not.toContain('You changed the salt.');
    expect(briefFor(brief, { copyOf: null, groups: null })).toEqual(brief);
  });

  it('leaves an empty text rather than none', () =>
    expect(
      briefFor({ type: 'doc', content: [only([], says('x'))] }, { copyOf: crock, groups: null }),
    ).toEqual({
      type: 'doc',
      content: [{ type: 'paragraph' }],
    }));

  it('never reaches anyone outside its groups, however deep it stands', () => {
    const someGroups = fc.subarray([crock, tun, cask]);
    const line = fc.letrec<{ node: RichTextNode }>((tie) => ({
      node: fc.oneof(
        { maxDepth: 3 },
        fc.constant(says('for all')),
        someGroups.map((ids) => only(ids, says(`secret ${ids.join(' ')} .`))),
        fc.array(tie('node'), { maxLength: 3 }).map((content) => ({ type: 'blockquote', content })),
        fc
          .tuple(someGroups, fc.array(tie('node'), { maxLength: 3 }))
          .map(([ids, content]) => only(ids, ...content)),
      ),
    })).node;
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 4 }),
        fc.option(fc.constantFrom(crock, tun, cask)),
        someGroups,
        (content, copyOf, groups) => {
          const text = plainText(briefFor({ type: 'doc', content }, { copyOf, groups }));
          for (const [, ids] of text.matchAll(/secret ([a-z ]*) \./g)) {
            const named = (ids ?? '').split(' ');
            expect(groups.some((id) => named.includes(id))).toBe(true);
            if (copyOf !== null) expect(named).toContain(copyOf);
          }
        },
      ),
    );
  });
});
