import { describe, expect, it } from '@jest/globals';
import { spreadIncrease } from './index.js';

const lab = (value: string) => ({ Lab: value });
const everyone = ['some', 'some', 'none', 'none'].map(lab);

describe('a latecomer', () => {
  it('evens out a group that lacks their kind more than one that has it', () => {
    const rules = [{ kind: 'spread', attribute: 'Lab', as: 'category' }] as const;
    const increase = (members: string[]) => spreadIncrease(rules, everyone, members.map(lab), lab('none'));
    expect(increase(['some'])).toBeLessThan(increase(['none']));
    expect(increase(['some', 'some'])).toBeLessThan(0);
  });

  it('costs nothing where no rule spreads anything', () => {
    expect(spreadIncrease([{ kind: 'nobody-alone' }], everyone, [lab('some')], lab('none'))).toBe(0);
  });
});
