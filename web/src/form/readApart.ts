import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { longestReadSeconds } from '@jigsaw/core/roster';
import { reading } from './reading.js';
import type { Reading } from './reading.js';

/** It was stopped by a person, or took too long. */
export class NotRead extends Error {
  constructor(readonly why: 'stopped' | 'too-long') {
    super(why);
  }
}

/** Reads on a worker of the page, so that the page goes on whatever the file holds.
 * @throws NotRead */
export async function readApart<Found>(
  read: (reading: Reading | Remote<Reading>) => Found | Promise<Found>,
  signal: AbortSignal,
): Promise<Found> {
  if (signal.aborted) throw new NotRead('stopped');
  // Where there are no workers it is done at once; a test has none.
  if (typeof Worker === 'undefined') return read(reading);
  const worker = new Worker(new URL('./read.worker.ts', import.meta.url), { type: 'module' });
  const ended = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(new NotRead('stopped')));
    setTimeout(() => reject(new NotRead('too-long')), longestReadSeconds * 1000);
    worker.addEventListener('error', () => reject(new NotRead('too-long'))); // its memory ran out
  });
  try {
    return await Promise.race([read(wrap<Reading>(worker)), ended]);
  } finally {
    worker.terminate();
  }
}
