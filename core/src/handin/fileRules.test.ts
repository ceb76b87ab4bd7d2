import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { checkFile, endingOf, sayFileRefusal } from './index.js';
import type { HandInRules, OfferedFile } from './index.js';

const folder = (more: Partial<HandInRules> = {}): HandInRules => ({
  by: 'group',
  takesText: false,
  mostFiles: 3,
  types: ['pdf', 'docx'],
  largestMb: 10,
  attempts: 'latest',
  ...more,
});
const file = (more: Partial<OfferedFile> = {}): OfferedFile => ({
  name: 'report.pdf',
  sizeBytes: 1000,
  found: 'pdf',
  ...more,
});
const refusal = (offered: OfferedFile, rules = folder(), already = 0) =>
  checkFile(offered, already, rules)?.code ?? null;

describe('which files a folder takes', () => {
  it('takes what has the right ending and holds what it says', () => {
    expect(refusal(file())).toBeNull();
    expect(refusal(file({ name: 'Report.PDF' }))).toBeNull();
    expect(refusal(file({ name: 'report.docx', found: 'zip' }))).toBeNull();
  });
  it('refuses a wrong type, and a wrong type under a right name', () => {
    expect(refusal(file({ name: 'report.exe', found: 'exe' }))).toBe('wrong-type');
    expect(refusal(file({ found: 'exe' }))).toBe('not-what-it-says');
    expect(refusal(file({ found: null }))).toBe('not-what-it-says');
    expect(refusal(file({ name: 'report', found: 'pdf' }))).toBe('wrong-type');
  });
  it('takes anything where no types are asked for, but no picture that is none', () => {
    const any = folder({ types: [] });
    expect(refusal(file({ name: 'readings.csv', found: null }), any)).toBeNull();
    expect(refusal(file({ name: 'photo.png', found: 'exe' }), any)).toBe('not-what-it-says');
    expect(refusal(file({ name: 'archive.xyz', found: 'zip' }), any)).toBeNull();
  });
  it('refuses what is too large or one too many', () => {
    expect(refusal(file({ sizeBytes: 10 * 1024 * 1024 }))).toBeNull();
    expect(refusal(file({ sizeBytes: 10 * 1024 * 1024 + 1 }))).toBe('too-large');
    expect(refusal(file(), folder(), 3)).toBe('too-many');
  });
  it('says what to do, for every refusal', () => {
    expect(sayFileRefusal({ code: 'wrong-type', name: 'a.exe', types: ['pdf', 'docx'] })).toBe(
      'a.exe is not an allowed type here. Save it as .pdf or .docx and add it again.',
    );
    for (const code of ['too-many', 'too-large', 'not-what-it-says'] as const)
      expect(sayFileRefusal({ code, name: 'a.pdf', most: 1, largestMb: 10, found: 'exe' })).toMatch(
        /again|another|add it then/,
      );
  });
  it('never takes more files than it says, whatever they are', () =>
    fc.assert(
      fc.property(fc.string(), fc.nat(1e9), fc.nat(400), (name, sizeBytes, already) => {
        if (already >= 3)
          expect(checkFile({ name, sizeBytes, found: null }, already, folder())).not.toBeNull();
      }),
    ));
  it('reads an ending in any case, and none where there is none', () =>
    expect(['a.PDF', 'a.tar.gz', 'README', '.hidden', 'a.'].map(endingOf)).toEqual([
      'pdf',
      'gz',
      '',
      'hidden',
      '',
    ]));
});
