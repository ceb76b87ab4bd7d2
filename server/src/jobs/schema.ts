import { Logger, runMigrations } from 'graphile-worker';

const silent = new Logger(() => () => undefined);

/** Makes the schema of the queue, which it keeps apart from ours. */
export const migrateJobs = (databaseUrl: string): Promise<void> =>
  runMigrations({ connectionString: databaseUrl, logger: silent });
