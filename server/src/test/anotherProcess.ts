import { spawn } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort } from '../../../ops/postgres.mjs';
import type { TestServer } from './testServer.js';

const program = path.join(path.dirname(fileURLToPath(import.meta.url)), '../../dist/main.js');

export interface AnotherProcess {
  readonly url: string;
  /** Without warning, as a power cut or the kernel does it. */
  kill(): Promise<void>;
}

/** A second process, of the built server, on the database of a test's server. Its clock is the real one. */
export async function anotherProcess({ databaseUrl }: TestServer): Promise<AnotherProcess> {
  const port = await freePort();
  const child = spawn(process.execPath, [program], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NODE_OPTIONS: '',
      LOG_LEVEL: 'silent',
      PORT: String(port),
      PUBLIC_URL: 'http://jigsaw.test',
      DATABASE_URL: databaseUrl,
    },
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (said: Buffer) => said.includes('Jigsaw Room is at') && resolve());
    child.once('exit', (code) => reject(new Error(`the second process ended with ${code}`)));
  });
  return {
    url: `http://127.0.0.1:${port}`,
    kill: () => {
      child.kill('SIGKILL');
      return ended;
    },
  };
}
