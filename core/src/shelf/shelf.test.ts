import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Shelved } from './shelf.js';
import { mostBytes, mostFiles, mostVersions, putOn, sayRefusal } from './shelf.js';

const shelved = (name: string, more: Partial<Shelved<string>> = {}): Shelved<string> => ({
  id: name,
  newest: { name, sha256: `bytes of ${name}` },
  versions: 1,
  ...more,
});
const given = (name: string, sha256 = 'new bytes', sizeBytes = 10) => ({ name, sha256, sizeBytes });

describe('what is put on a shelf', () => {
  it.each([
    ['is a file of its own', given('plan.docx'), { to: 'new' }],
    ['is the next version of a file of its name', given('log.csv'), { to: 'version', of: 'log.csv' }],
    ['is so too where the name is written otherwise', given('Log.CSV'), { to: 'version', of: 'log.csv' }],
    ['is there already, where its bytes are', given('log.csv', 'bytes of log.csv'), { to: 'there' }],
    ['is a file of its own with bytes that lie there under another name', given('two.csv', 'bytes of log.csv'), { to: 'new' }],
  ])('%s', (_says, file, put) =>
    expect(putOn({ files: [shelved('log.csv')], bytes: 100 }, file)).toEqual(put)); // prettier-ignore

  it('is of one name however its letters are put together', () => {
    const files = [shelved('Caf\u00e9.txt')];
    expect(putOn({ files, bytes: 0 }, given('cafe\u0301.txt'))).toEqual({ to: 'version', of: 'Caf\u00e9.txt' }); // prettier-ignore
  });

  it('goes to the newest of two files of one name, which a restored one makes', () => {
    const files = [shelved('a', { id: 'newer' }), shelved('a', { id: 'older' })];
    expect(putOn({ files, bytes: 0 }, given('a'))).toEqual({ to: 'version', of: 'newer' });
  });

  it('is refused over the limits and not below them, and sent twice it is never refused', () => {
    const many = Array.from({ length: mostFiles }, (_each, at) => shelved(`f${at}`));
    expect(putOn({ files: many, bytes: 0 }, given('one more'))).toEqual({ to: 'refused', why: 'files' });
    expect(putOn({ files: many.slice(1), bytes: 0 }, given('one more'))).toEqual({ to: 'new' });
    expect(putOn({ files: many, bytes: 0 }, given('f1'))).toEqual({ to: 'version', of: 'f1' });
    const old = [shelved('old', { versions: mostVersions })];
    expect(putOn({ files: old, bytes: 0 }, given('old'))).toEqual({ to: 'refused', why: 'versions' });
    expect(putOn({ files: [], bytes: mostBytes - 10 }, given('last'))).toEqual({ to: 'new' });
    expect(putOn({ files: [], bytes: mostBytes - 9 }, given('last'))).toEqual({ to: 'refused', why: 'bytes' }); // prettier-ignore
    expect(putOn({ files: old, bytes: mostBytes }, given('old', 'bytes of old'))).toEqual({ to: 'there' });
    expect(sayRefusal('files')).toContain(String(mostFiles));
    expect(sayRefusal('versions')).toContain(String(mostVersions));
    expect(sayRefusal('bytes')).toContain(`${mostBytes / 1024 ** 3} GB`);
  });

  it('never makes two files of one name, whatever is put there in whatever order', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom('a', 'A', 'b', 'c'), fc.nat(3))), (puts) => {
        let files: readonly Shelved<string>[] = [];
        for (const [at, [name, bytes]] of puts.entries()) {
          const newest = { name, sha256: String(bytes) };
          const put = putOn({ files, bytes: 0 }, given(name, newest.sha256));
          if (put.to === 'new') files = [...files, { id: String(at), newest, versions: 1 }];
          if (put.to === 'version') files = files.map((each) => each.id === put.of ? { ...each, newest, versions: each.versions + 1 } : each); // prettier-ignore
        }
        const names = files.map(({ newest }) => newest.name.toLowerCase());
        expect(new Set(names).size).toBe(names.length);
      }),
    ));
});
