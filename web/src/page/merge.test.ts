import { describe, expect, it } from '@jest/globals';
import { mergeParts } from './merge.js';

const base = { mark: '30', feedback: '', picks: { method: '2' }, members: new Map([['noor', 1]]) };
type Sheet = typeof base;
const merge = (mine: Partial<Sheet>, theirs: Partial<Sheet>) =>
  mergeParts<Sheet>(base, { ...base, ...mine }, { ...base, ...theirs }, ['picks', 'members']);

describe('two who change one thing at once', () => {
  it('both have what they changed, where that is not the same part', () => {
    const { value, disputed } = merge({ mark: '31' }, { feedback: 'Good reading.' });
    expect([value.mark, value.feedback, disputed]).toEqual(['31', 'Good reading.', []]);
  });

  it('are asked about the parts that both changed, each to something else', () => {
    expect(merge({ mark: '31', feedback: 'a' }, { mark: '20', feedback: 'a' })).toMatchObject({
      value: { mark: '31', feedback: 'a' },
      disputed: ['mark'],
    });
  });

  it('change parts of parts, and take them away', () => {
    const members = new Map([['jorge', 2]]);
    const { value, disputed } = merge(
      { picks: { method: '2', writing: '4' } as Sheet['picks'], members: new Map() },
      { picks: { method: '3' }, members: new Map([...base.members, ...members]) },
    );
    expect(value.picks).toEqual({ method: '3', writing: '4' });
    expect([...value.members]).toEqual([['jorge', 2]]);
    expect(disputed).toEqual([]);
    expect(merge({ picks: { method: '1' } }, { picks: { method: '3' } }).disputed).toEqual(['picks.method']);
  });
});
