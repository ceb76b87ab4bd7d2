import { describe, expect, it } from '@jest/globals';
import { isAddress, sameAddress, tidyAddress } from './index.js';

describe('an address', () => {
  it.each([
    ['with a zero-width space', 'noor\u200b@quillmere.example'],
    ['with a byte order mark', '\ufeffnoor@quillmere.example'],
    ['with marks of direction', '\u202anoor@quillmere.example\u202c'],
    ['with a soft hyphen', 'no\u00ador@quillmere.example'],
    ['with blanks around it', ' noor@quillmere.example\u00a0'],
    ['in capitals', 'Noor@Quillmere.example'],
  ])('is the same %s', (_how, typed) => {
    expect(sameAddress(typed)).toBe('noor@quillmere.example');
    expect(isAddress(tidyAddress(typed))).toBe(true);
  });

  it('is the same whether an accent is written with its letter or after it', () => {
    expect(sameAddress('jos\u0065\u0301@quillmere.example')).toBe(sameAddress('jos\u00e9@quillmere.example'));
  });

  it('is kept in the case in which it was typed', () =>
    expect(tidyAddress(' Noor@Quillmere.example ')).toBe('Noor@Quillmere.example'));

  it.each(['no\u0000or@quillmere.example', 'noor@quill\u0007mere.example', 'no\u0085or@quillmere.example'])(
    'is none with a control character in it: %j',
    (typed) => expect(isAddress(tidyAddress(typed))).toBe(false),
  );
});
