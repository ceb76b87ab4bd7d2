import { describe, expect, it } from '@jest/globals';
import { formOf, hueOf, nudgeOf, piecePath, seamPath } from './emblem.js';

describe('emblems', () => {
  it('tell 276 groups apart by form, turn and hue', () => {
    const looks = Array.from({ length: 276 }, (_, at) => `${piecePath(formOf(at + 1))} ${hueOf(at + 1)}`);
    expect(new Set(looks).size).toBe(276);
  });
  it('never give neighbours one hue', () => {
    for (let number = 1; number < 300; number += 1) expect(hueOf(number)).not.toBe(hueOf(number + 1));
  });
  it('draw a closed piece and an open seam', () => {
    expect(piecePath('TFSF')).toMatch(/^M.*Z$/);
    expect(seamPath(56, 52, 'left')).toMatch(/^M0 0L0 2C.*L0 56$/);
  });
  it('move the number away from a socket', () => expect(nudgeOf('FSFF')).toEqual({ x: -4, y: 0 }));
});
