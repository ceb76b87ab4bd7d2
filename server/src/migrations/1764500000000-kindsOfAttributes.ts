import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the values of a roster attribute are can be said, and an attribute renamed as a whole. */
export class KindsOfAttributes1764500000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "course" ADD "attributeKinds" jsonb NOT NULL DEFAULT '{}'`);
    await allow(run, 'join', 'rename-attribute');
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DELETE FROM "roster_change" WHERE "kind" = 'rename-attribute'`);
    await allow(run, 'join');
    await run.query(`ALTER TABLE "course" DROP COLUMN "attributeKinds"`);
  }
}

async function allow(run: QueryRunner, ...more: string[]): Promise<void> {
  const kinds = ['import', 'sync', 'add', 'edit', 'drop', 'bring-back', ...more, 'undo']
    .map((kind) => `'${kind}'`)
    .join(', ');
  await run.query(`ALTER TABLE "roster_change" DROP CONSTRAINT "roster_change_kind"`);
  await run.query(
    `ALTER TABLE "roster_change" ADD CONSTRAINT "roster_change_kind" CHECK ("kind" IN (${kinds}))`,
  );
}
