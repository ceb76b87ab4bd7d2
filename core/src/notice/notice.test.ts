import { describe, expect, it } from '@jest/globals';
import { discussionRules } from '../discussion/index.js';
import { mayAct } from '../release/index.js';
import { noticeFacts, noticeTalk } from './index.js';

const open = (part: 'member' | 'staff' | 'reader') => ({ access: 'open', part }) as const;

describe('a notice', () => {
  it('is for the class or for each group, and nothing to be done', () => {
    expect(noticeFacts.modes({})).toEqual(['own', 'common']);
    expect(noticeFacts.isWork).toBe(false);
  });

  it('takes replies of members and staff, where it takes any', () => {
    const rules = discussionRules(noticeTalk({ hasReplies: true }));
    expect((['member', 'staff', 'reader'] as const).map((part) => mayAct(rules, 'open-thread', open(part)))).toEqual([true, true, false]); // prettier-ignore
  });

  it('takes none of anyone where replies are off; what stands there may still be changed and deleted', () => {
    const rules = discussionRules(noticeTalk({ hasReplies: false }));
    for (const part of ['member', 'staff'] as const) {
      expect(mayAct(rules, 'open-thread', open(part))).toBe(false);
      expect(mayAct(rules, 'reply', open(part))).toBe(false);
      expect(mayAct(rules, 'change-own', open(part))).toBe(true);
    }
  });
});
