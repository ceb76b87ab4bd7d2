import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { sure } from '@jigsaw/core/lists';
import { migrateJobs } from '../jobs/index.js';
import { oneAtATime } from '../platform/oneAtATime.js';
import { dataSourceOptions } from './dataSource.js';

const oldestVersion = 14;

export class DatabaseRefused extends Error {}

/** Brings the database to the schema of this version.
 * @throws DatabaseRefused with one sentence if it cannot be reached or is too old. */
export async function migrate(databaseUrl: string): Promise<void> {
  const dataSource = new DataSource(dataSourceOptions(databaseUrl));
  try {
    await dataSource.initialize();
  } catch (error) {
    throw new DatabaseRefused(
      `The database cannot be reached (${(error as Error).message}). Check DATABASE_URL and that the server runs.`,
    );
  }
  try {
    const [row] = await dataSource.query<{ server_version_num: string }[]>('SHOW server_version_num');
    refuseOldDatabase(Number(sure(row).server_version_num));
    await oneAtATime(databaseUrl, 'migrate', async () => {
      await dataSource.runMigrations();
      await migrateJobs(databaseUrl);
    });
  } finally {
    await dataSource.destroy();
  }
}

/** @param versionNumber as PostgreSQL tells it: 150004 is 15.4. */
export function refuseOldDatabase(versionNumber: number): void {
  const version = Math.floor(versionNumber / 10_000);
  if (version < oldestVersion)
    throw new DatabaseRefused(
      `The database is PostgreSQL ${version}; Jigsaw Room needs ${oldestVersion} or newer.`,
    );
}
