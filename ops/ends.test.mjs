import { execFileSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { freePort } from './postgres.mjs';
import {
  answers,
  begin,
  childrenOf,
  ended,
  folder,
  instructor,
  oneSentence,
  serves,
  until,
} from './testing.mjs';

describe('ends that no one planned', () => {
  let ports;
  const env = () => ({ ...instructor, JIGSAW_DATA: path.join(folder, 'ends') });
  const database = () => path.join(folder, 'ends/start/postgres/postmaster.pid');

  it('of three first starts at once in one folder one serves, and the others say so', async () => {
    ports = [await freePort(), await freePort(), await freePort()];
    const starts = ports.map((port) => begin(['start'], { PORT: String(port), ...env() }));
    await until(() => starts.filter(({ child }) => child.exitCode === null).length === 1);
    const serving = starts.find(({ child }) => child.exitCode === null);
    for (const { child, said } of starts.filter((start) => start !== serving)) {
      expect(child.exitCode).toBe(1);
      expect(oneSentence(said())).toEqual([expect.stringMatching(/^A Jigsaw Room .* is running already/)]);
    }
    await until(() => serves(serving.said));
    process.kill(serving.child.pid, 'SIGTERM');
    expect(await ended(serving.child)).toBe(0);
  }, 300_000);

  it('starts a server that died again, says so, and ends after a killed command', async () => {
    const [port] = ports;
    const { child, said } = begin(['start'], { PORT: String(port), ...env() });
    await until(() => serves(said));
    const server = childrenOf(child.pid).find(({ runs }) => runs.includes('server/dist/main.js'));
    process.kill(server.pid, 'SIGKILL');
    await until(() => said().includes('ended by itself (by SIGKILL)'));
    await until(() => answers(port));
    process.kill(child.pid, 'SIGKILL');
    // At once, while what the killed one left behind is still ending.
    const next = begin(['start'], { PORT: String(port), ...env() });
    await until(() => serves(next.said));
    expect(await answers(port)).toBe(true);
    process.kill(next.child.pid, 'SIGKILL');
    await until(async () => !(await answers(port)) && !existsSync(database()));
  }, 300_000);

  it('begins anew where a first start was killed while it made its database', async () => {
    const left = path.join(folder, 'half/start/postgres.new-1');
    mkdirSync(left, { recursive: true });
    const port = String(await freePort());
    const half = { ...instructor, PORT: port, JIGSAW_DATA: path.join(folder, 'half') };
    const first = begin(['start'], half);
    await until(() => existsSync(path.join(folder, `half/start/postgres.new-${first.child.pid}`)));
    process.kill(first.child.pid, 'SIGKILL');
    const second = begin(['start'], half);
    await until(() => serves(second.said));
    expect(existsSync(left)).toBe(false);
    process.kill(second.child.pid, 'SIGTERM');
    expect(await ended(second.child)).toBe(0);
  }, 300_000);

  it('ends in order when Ctrl-C is pressed twice while someone is still sending', async () => {
    const [port] = ports;
    const { child, said } = begin(['start'], { PORT: String(port), ...env() });
    await until(() => serves(said));
    const slow = net.connect(port, '127.0.0.1');
    slow.on('error', () => undefined);
    slow.write(
      'POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"email"',
    );
    process.kill(-child.pid, 'SIGINT');
    await new Promise((resolve) => setTimeout(resolve, 50));
    process.kill(-child.pid, 'SIGINT');
    expect(await ended(child)).toBe(0);
    slow.destroy();
    expect(oneSentence(said()).slice(-1)).toEqual(['Stopped.']);
    expect(said()).not.toMatch(/Error|at .*\.m?js:/);
    expect(existsSync(database())).toBe(false);
    expect(readFileSync(path.join(folder, 'ends/start/running.pid'), 'utf8')).toBe('');
  }, 300_000);

  it('can be broken off before it serves', async () => {
    const { child, said } = begin(['start'], { PORT: String(ports[0]), ...env() });
    await until(() => readFileSync(path.join(folder, 'ends/start/running.pid'), 'utf8') !== '');
    process.kill(-child.pid, 'SIGINT');
    expect(await ended(child)).toBe(0);
    expect(oneSentence(said())).toEqual(['Stopped.']);
    expect(existsSync(database())).toBe(false);
  }, 300_000);

  const helpers = os.userInfo().uid === 0 ? ['flock', 'runuser', 'id'] : ['flock'];
  it.each(helpers)('can be broken off while it waits for %s', async (name) => {
    const slow = mkdtempSync(path.join(folder, 'slow-'));
    chmodSync(slow, 0o755);
    const real = execFileSync('which', [name], { encoding: 'utf8' }).trim();
    writeFileSync(path.join(slow, name), `#!/bin/sh\n: >${slow}/asked\nsleep 1\nexec ${real} "$@"\n`);
    chmodSync(path.join(slow, name), 0o755);
    const PATH = `${slow}:${process.env.PATH}`;
    const { child, said } = begin(['start'], { PORT: String(ports[0]), ...env(), PATH });
    await until(() => existsSync(path.join(slow, 'asked')));
    process.kill(-child.pid, 'SIGINT');
    expect(await ended(child)).toBe(0);
    expect(oneSentence(said())).toEqual(['Stopped.']);
    expect(existsSync(database())).toBe(false);
  });
});
