import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startPostgres } from '../../../ops/postgres.mjs';

/** One throw-away PostgreSQL for the whole run; each test file makes its own database in it. */
export default async function globalSetup(): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-test-'));
  const postgres = await startPostgres({ folder, isThrowAway: true });
  process.env['JIGSAW_TEST_DATABASE_SERVER'] = postgres.url;
  Object.assign(globalThis, { jigsawTestPostgres: { postgres, folder } });
}
