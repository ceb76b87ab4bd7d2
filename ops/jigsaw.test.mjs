import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { refuseWrongNode } from './node.mjs';
import { freePort, refuseFullDisk } from './postgres.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
let folder;
beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-ops-'));
  chmodSync(folder, 0o755); // the account that runs the database has to get in
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Runs ./jigsaw as a person would; resolves when it has ended, with what it said. */
function jigsaw(args, env = {}) {
  const { child, said } = begin(args, env);
  return new Promise((resolve) => child.once('exit', (code) => resolve({ code, said: said() })));
}

function begin(args, env) {
  const child = spawn(path.join(root, 'jigsaw'), args, {
    env: { ...process.env, JIGSAW_DATA: folder, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => (text += piece));
  return { child, said: () => text };
}

const oneSentence = (said) =>
  said
    .trim()
    .split('\n')
    .filter((line) => !/^(Building|Installing)/.test(line));

describe('starting', () => {
  it('says how it is used', async () => {
    const { code, said } = await jigsaw(['dance']);
    expect(code).toBe(2);
    expect(said).toContain('./jigsaw demo');
  });

  it('asks for a Node.js that fits', () => {
    for (const version of ['18.20.0', '20.18.9', '22.11.0', '21.7.0'])
      expect(() => refuseWrongNode(version)).toThrow(/needs 20\.19/);
    for (const version of ['20.19.0', '22.12.0', '24.1.0'])
      expect(() => refuseWrongNode(version)).not.toThrow();
  });

  it('asks for space on the disk', () => {
    expect(() => refuseFullDisk('/data', { bavail: 10, bsize: 4096 })).toThrow(
      /has 0 MB left; 300 MB are needed/,
    );
    expect(() => refuseFullDisk('/data', { bavail: 1_000_000, bsize: 4096 })).not.toThrow();
  });

  it('says in one sentence that the port is taken, before it starts anything', async () => {
    const port = await freePort();
    const other = net.createServer().listen(port, '127.0.0.1');
    const { code, said } = await jigsaw(['start'], { PORT: String(port) });
    other.close();
    expect(code).toBe(1);
    expect(oneSentence(said)).toEqual([
      `Port ${port} is taken by another program. Choose another one: PORT=${port + 1} ./jigsaw …`,
    ]);
  });

  it('says in one sentence that a port is no port', async () => {
    const { code, said } = await jigsaw(['start'], { PORT: 'http' });
    expect(code).toBe(1);
    expect(oneSentence(said)).toEqual(['PORT is "http"; it must be a whole number from 1 to 65535.']);
  });

  it('says in one sentence that the database cannot be reached', async () => {
    const { code, said } = await jigsaw(['start'], {
      PORT: String(await freePort()),
      DATABASE_URL: 'postgres://nobody@127.0.0.1:1/none',
    });
    expect(code).toBe(1);
    expect(oneSentence(said)).toEqual([
      expect.stringMatching(
        /^The database cannot be reached \(.*\)\. Check DATABASE_URL and that the server runs\.$/,
      ),
    ]);
  }, 30_000);

  it('says how the first instructor is made when nobody can be asked', async () => {
    // In a folder of its own: another test makes an instructor.
    const JIGSAW_DATA = path.join(folder, 'nobody');
    const { code, said } = await jigsaw(['start'], { PORT: String(await freePort()), JIGSAW_DATA });
    expect(code).toBe(1);
    expect(oneSentence(said)).toEqual([expect.stringMatching(/^There is no instructor yet\./)]);
  }, 60_000);

  it('serves, keeps its data, and stops all that it started', async () => {
    const port = String(await freePort());
    const first = {
      JIGSAW_INSTRUCTOR_NAME: 'Ilse',
      JIGSAW_INSTRUCTOR_EMAIL: 'ilse@quillmere.example',
      JIGSAW_INSTRUCTOR_PASSWORD: 'brine and bubbles',
    };
    for (const env of [first, {}]) {
      const { child, said } = begin(['start'], { PORT: port, ...env });
      await until(() => said().includes('Jigsaw Room is at'));
      const answer = await fetch(`http://127.0.0.1:${port}/api/session`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ email: 'ilse@quillmere.example', password: 'brine and bubbles' }),
      });
      expect(answer.status).toBe(200);
      expect(existsSync(path.join(folder, 'start/postgres/postmaster.pid'))).toBe(true);
      child.kill('SIGTERM');
      expect(await new Promise((resolve) => child.once('exit', resolve))).toBe(0);
      expect(existsSync(path.join(folder, 'start/postgres/postmaster.pid'))).toBe(false);
    }
  }, 90_000);
});

async function until(isSo) {
  for (let tries = 0; tries < 300; tries += 1) {
    if (isSo()) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('it did not come about within 30 s');
}
