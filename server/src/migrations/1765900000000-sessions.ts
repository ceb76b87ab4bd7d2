import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A session has a name of its own, so that its owner can see and end it without its secret being anywhere, and says from where it came. */
export class Sessions1765900000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `ALTER TABLE "session" ADD "id" uuid NOT NULL DEFAULT gen_random_uuid(), ADD "cameFrom" text NOT NULL DEFAULT ''`,
    );
    await run.query(
      `ALTER TABLE "session" ALTER COLUMN "id" DROP DEFAULT, ALTER COLUMN "cameFrom" DROP DEFAULT`,
    );
    await run.query(`CREATE UNIQUE INDEX "session_id" ON "session" ("id")`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP INDEX "session_id"`);
    await run.query(`ALTER TABLE "session" DROP COLUMN "cameFrom", DROP COLUMN "id"`);
  }
}
