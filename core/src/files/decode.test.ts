import { describe, expect, it } from '@jest/globals';
import { decode } from './index.js';

describe('a file of unknown encoding', () => {
  it('is read as Windows-1252 with all its marks, where it is neither UTF-8 nor UTF-16', () => {
    const marks = '€‚ƒ„…†‡ˆ‰Š‹ŒŽ‘’“”•–—˜™š›œžŸ';
    const unassigned = [0x81, 0x8d, 0x8f, 0x90, 0x9d];
    const bytes = Array.from({ length: 32 }, (_, at) => 0x80 + at).filter(
      (byte) => !unassigned.includes(byte),
    );
    expect(decode(Uint8Array.from([0x41, ...bytes, 0xe9, 0x0a]))).toEqual({
      ok: true,
      text: `A${marks}é\n`,
      encoding: 'Windows-1252',
    });
  });

  it('keeps a last character that stands alone', () =>
    expect(decode(Uint8Array.from([0x4e, 0x80]))).toMatchObject({ text: 'N€' }));

  it.each([
    ['UTF-8', [0xe2, 0x82, 0xac]],
    ['UTF-16', [0xff, 0xfe, 0xac, 0x20]],
  ] as const)('is read as %s where it is that', (encoding, bytes) =>
    expect(decode(Uint8Array.from(bytes))).toEqual({ ok: true, text: '€', encoding }),
  );
});
