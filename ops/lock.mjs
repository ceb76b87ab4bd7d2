/** Locks that the kernel lets go of when their process ends, however it ends. */
import { spawn, spawnSync } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';

/** For small programs that answer a question: in a session of their own. Ctrl-C in the terminal reaches all that runs there,
 * and one that it ended would have answered no. */
export const apart = { detached: true };

/**
 * Holds a file for this process: anyone else who asks for it is refused or waits. `flock` locks what this process has open,
 * so the lock outlives that small program and ends with this process or with `release`.
 * @param whenTaken called once if another process holds the file and this one has to wait for it; none: it does not wait.
 * @returns {Promise<{ release(): void } | null>} null: another process holds it.
 */
export async function hold(file, whenTaken) {
  const descriptor = openSync(file, 'r');
  const stdio = ['ignore', 'ignore', 'inherit', descriptor];
  let isHeld = spawnSync('flock', ['--nonblock', '3'], { stdio, ...apart }).status === 0;
  if (!isHeld && whenTaken) {
    whenTaken();
    isHeld = await new Promise((resolve) => {
      const waiting = spawn('flock', ['3'], { stdio });
      waiting.once('error', () => resolve(false));
      waiting.once('exit', (code) => resolve(code === 0));
    });
  }
  if (isHeld) return { release: () => closeSync(descriptor) };
  closeSync(descriptor);
  return null;
}
