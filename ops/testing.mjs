/** For the tests of ./jigsaw: runs it as a person would, in a folder that goes with the tests. */
import { execFileSync, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll } from '@jest/globals';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
/** Of one test file. */
export const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-ops-'));
chmodSync(folder, 0o755); // the account that runs the database has to get in
const begun = [];
afterAll(() => {
  // Of a test that failed something may still run, and write.
  for (const child of begun) if (child.exitCode === null && child.signalCode === null) child.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 500 });
}, 60_000);

/** Runs ./jigsaw as a person would; resolves when it has ended, with what it said. */
export function jigsaw(args, env = {}) {
  const { child, said } = begin(args, env);
  return new Promise((resolve) => child.once('exit', (code) => resolve({ code, said: said() })));
}

export function begin(args, env) {
  const child = spawn(path.join(root, 'jigsaw'), args, {
    env: { ...process.env, JIGSAW_DATA: folder, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true, // a group of its own, as in a terminal: Ctrl-C reaches all of it
  });
  begun.push(child);
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => (text += piece));
  return { child, said: () => text };
}

/** What was said, but for what depends on what else happens in this tree. */
export const oneSentence = (said) =>
  said
    .trim()
    .split('\n')
    .filter((line) => !/^(Building|Installing|Another)/.test(line));

export const instructor = {
  JIGSAW_INSTRUCTOR_NAME: 'Ilse',
  JIGSAW_INSTRUCTOR_EMAIL: 'ilse@quillmere.example',
  JIGSAW_INSTRUCTOR_PASSWORD: 'brine and bubbles',
};
export const ended = (child) =>
  child.exitCode !== null ? child.exitCode : new Promise((resolve) => child.once('exit', resolve));
export const serves = (said) => said().includes('Jigsaw Room is at');
export const answers = async (port) =>
  (await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null))?.status === 200;
/** The processes that one has started, by what they run. */
export const childrenOf = (pid) =>
  execFileSync('ps', ['-o', 'pid=,args=', '--ppid', String(pid)], { encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((line) => ({ pid: Number.parseInt(line), runs: line }));

/** The patience only ends a test that has failed: nothing here is timed. */
export async function until(isSo) {
  for (let tries = 0; tries < 1200; tries += 1) {
    if (await isSo()) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('it did not come about within two minutes');
}
