import { expect, it } from '@jest/globals';
import type { Content } from './content.js';
import { partsChanged } from './content.js';

const content: Content = {
  title: 'Report',
  brief: { type: 'doc', content: [{ type: 'paragraph' }] },
  files: [],
  points: '40',
  rubric: null,
  schedule: { opens: null, due: '2026-11-12T17:00:00Z', closes: null },
  latePolicy: { stepPercent: 10 },
  settings: {},
};

it('names the parts that another content changes', () => {
  expect(
    partsChanged(content, { ...content, brief: { type: 'doc', content: [{ type: 'paragraph' }] } }),
  ).toEqual([]);
  expect(partsChanged(content, { ...content, brief: { type: 'doc' }, points: '50' })).toEqual([
    'brief',
    'points',
  ]);
});

it('takes one moment for one, however it is written', () => {
  const at = (due: string | null) => ({ ...content, schedule: { ...content.schedule, due } });
  expect(partsChanged(content, at('2026-11-12T17:00:00.000Z'))).toEqual([]);
  expect(partsChanged(content, at('2026-11-12T17:01:00Z'))).toEqual(['due']);
  expect(partsChanged(content, at(null))).toEqual(['due']);
});
