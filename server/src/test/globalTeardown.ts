import { rmSync } from 'node:fs';

export default async function globalTeardown(): Promise<void> {
  const { jigsawTestPostgres } = globalThis as unknown as {
    jigsawTestPostgres: { postgres: { stop(): Promise<void> }; folder: string };
  };
  await jigsawTestPostgres.postgres.stop();
  rmSync(jigsawTestPostgres.folder, { recursive: true, force: true });
}
