import { readlinkSync } from 'node:fs';
import os from 'node:os';
import { isMainThread } from 'node:worker_threads';

/** Lets the system give its time to the thread that serves everyone first: what this thread works on can wait a little, pages cannot. Called by the
 * thread itself, once; what a thread does is also called without one, and then nothing changes. Where threads have no priority of their own (any system but Linux) nothing changes. */
export function yieldToOthers(): void {
  if (isMainThread) return;
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    os.setPriority(thread, os.constants.priority.PRIORITY_LOW);
  } catch {
    // It works all the same.
  }
}
