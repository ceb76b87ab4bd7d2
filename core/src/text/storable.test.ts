import { expect, it } from '@jest/globals';
import { storable } from './index.js';

it('leaves out what cannot be kept, and nothing that someone typed', () => {
  expect(storable('a\0b')).toBe('ab');
  expect(storable('cut \ud83d here')).toBe('cut \ufffd here');
  expect(storable('Ąда 한서연 🧀\tline\nline')).toBe('Ąда 한서연 🧀\tline\nline');
});
