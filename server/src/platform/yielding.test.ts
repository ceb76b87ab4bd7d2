import os from 'node:os';
import { Worker } from 'node:worker_threads';
import { expect, it } from '@jest/globals';
import { threadFile } from './thread.js';
import { yieldToOthers } from './yielding.js';

it('gives a thread less of the system’s time than the one that serves everyone', async () => {
  const before = os.getPriority();
  yieldToOthers(); // here, where everyone is served, it does nothing
  expect(os.getPriority()).toBe(before);
  const module = threadFile(import.meta.url, './yielding.js');
  const worker = new Worker(
    `import('${module}').then(({ yieldToOthers }) => {
       yieldToOthers();
       const { readlinkSync } = require('node:fs');
       const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
       require('node:worker_threads').parentPort.postMessage(require('node:os').getPriority(thread));
     })`,
    { eval: true },
  );
  const priority = await new Promise((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
  });
  await worker.terminate();
  expect(priority).toBe(os.constants.priority.PRIORITY_LOW);
  expect(os.getPriority()).toBeLessThan(os.constants.priority.PRIORITY_LOW);
});
