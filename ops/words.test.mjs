import { describe, expect, it } from '@jest/globals';
import { faultsOf, refusedWords } from './words.mjs';

const catalogue = `# Words
| tray | bring people in | not read |
## Everyday words
| Say | Not | Where |
|---|---|---|
| Delete | “Change”, taken out | Rooms |
| Who | whom | everywhere |
`;
const refused = refusedWords(catalogue);
const faults = (file, content) => faultsOf(file, content, refused);

describe('the words of the catalogue', () => {
  it('are found in texts, attributes, templates, comments and docs, with what to say', () => {
    const source = [
      '/** For whom it is. */',
      'const says = `${count} taken out`;',
      'const view = <p title="Taken out by staff">Page taken\n out</p>;',
    ].join('\n');
    expect(faults('web/src/a.tsx', source).map((fault) => fault.split(':')[1])).toEqual(['2', '3', '3', '1']);
    expect(faults('docs/a.md', 'To whom\n`whom` in code')).toEqual(['docs/a.md:1: “whom”. Say: Who']);
  });
  it('in quotes are refused only as a whole label', () => {
    expect(faults('a.tsx', '<b>Change</b>')).toHaveLength(1);
    expect(faults('a.tsx', '<b>Changes of the roster</b>')).toEqual([]);
    expect(faults('a.tsx', '<b>change</b>')).toEqual([]);
  });
  it('are no parts of other words, names of code or what is imported', () => {
    expect(faults('a.ts', "import { whom } from './whom.js'; const whomever = forWhom;")).toEqual([]);
  });
  it('of a button are one sentence', () => {
    expect(faults('a.tsx', '<Button>Delete it. You can restore it.</Button>')).toHaveLength(1);
    expect(faults('a.tsx', '<Button aria-label="Delete. Twice.">Delete</Button>')).toEqual([]);
    expect(faults('a.tsx', '<p>Delete it. You can restore it.</p>')).toEqual([]);
  });
});
