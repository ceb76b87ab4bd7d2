import { describe, expect, it } from '@jest/globals';
import { sure } from './index.js';

describe('what is known to be there', () => {
  it('is given as it is, also when it is empty, nothing or no', () => {
    expect([sure(''), sure(0), sure(false)]).toEqual(['', 0, false]);
  });

  it('is told of where it is missing', () => {
    const [first] = [] as string[];
    expect(() => sure(first)).toThrow('must be there');
    expect(() => sure(null)).toThrow('must be there');
  });
});
