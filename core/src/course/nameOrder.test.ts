import { describe, expect, it } from '@jest/globals';
import { inNameOrder } from './index.js';

const people = (...names: string[]) => names.map((name) => ({ name, familyName: null, reading: null }));
const inOrder = (...names: string[]) => inNameOrder(people(...names)).map(({ name }) => name);

describe('the order of names', () => {
  it('is that of family names, whatever their accents and case', () => {
    expect(
      inOrder('Noor Zuber', 'Bram Łaski', 'Ana Étienne', 'Ida lasota', 'Ravi Eze', 'Olu Lasker'),
    ).toEqual(['Ana Étienne', 'Ravi Eze', 'Olu Lasker', 'Bram Łaski', 'Ida lasota', 'Noor Zuber']);
  });

  it('puts those of one family name in the order of their whole names, and leaves those of one name as they are told apart', () => {
    expect(inOrder('Zoë Berg', 'Åsa Berg', 'Ola Berg')).toEqual(['Åsa Berg', 'Ola Berg', 'Zoë Berg']);
    expect(inOrder('åsa Berg', 'Åsa Berg')).toEqual(inOrder('Åsa Berg', 'åsa Berg'));
  });

  it('sorts by the reading where a name is in another script, and scripts after one another where there is none', () => {
    const hwang = { name: '황서연', familyName: null, reading: 'Seoyeon Hwang' };
    const others = people('林雨桐', 'Πηνελόπη Αγγέλου', 'Emi Ito');
    expect(inNameOrder([...others, hwang]).map(({ name }) => name)).toEqual([
      '황서연',
      'Emi Ito',
      'Πηνελόπη Αγγέλου',
      '林雨桐',
    ]);
  });

  it('leaves the list that it is given as it was', () => {
    const given = people('B', 'A');
    inNameOrder(given);
    expect(given.map(({ name }) => name)).toEqual(['B', 'A']);
  });
});
