import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { openRegistrar, School } from '@jigsaw/demo/registrar';
import { freePort, startPostgres } from '../../ops/postgres.mjs';
import { firstInstructor } from './people.js';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');

/** A throw-away database and the built server on it, as ./jigsaw start would run them. */
export default async function globalSetup(): Promise<() => Promise<void>> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-e2e-'));
  const mailFolder = path.join(folder, 'mail');
  const postgres = await startPostgres({ folder, isThrowAway: true });
  const port = await freePort();
  const url = `http://localhost:${port}`;
  const registrar = await openRegistrar(new School(), 0);
  const server = spawn(process.execPath, [path.join(root, 'server/dist/main.js')], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      LOG_LEVEL: 'error',
      PORT: String(port),
      PUBLIC_URL: url,
      DATABASE_URL: postgres.url,
      REGISTRAR_URL: registrar.url,
      MAIL_FOLDER: mailFolder,
      JIGSAW_WEB: path.join(root, 'web/dist'),
      JIGSAW_INSTRUCTOR_NAME: firstInstructor.name,
      JIGSAW_INSTRUCTOR_EMAIL: firstInstructor.email,
      JIGSAW_INSTRUCTOR_PASSWORD: firstInstructor.password,
    },
  });
  process.env['JIGSAW_E2E_URL'] = url;
  process.env['JIGSAW_E2E_DATABASE'] = postgres.url;
  process.env['JIGSAW_E2E_REGISTRAR'] = registrar.url;
  process.env['JIGSAW_E2E_MAIL'] = mailFolder;
  await untilReady(url);
  return async () => {
    server.kill('SIGTERM');
    await new Promise((resolve) => server.once('exit', resolve));
    await registrar.close();
    await postgres.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

async function untilReady(url: string): Promise<void> {
  const until = Date.now() + 30_000;
  while (Date.now() < until) {
    const isReady = await fetch(`${url}/api/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (isReady) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('the server did not become ready within 30 s');
}
