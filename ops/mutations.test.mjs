import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from '@jest/globals';
import { mutations } from './mutations.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

it('every sabotage fits the code as it is', () => {
  const misfits = mutations.filter(
    ({ file, from }) => readFileSync(path.join(root, file), 'utf8').split(from).length !== 2,
  );
  expect(misfits).toEqual([]);
});
