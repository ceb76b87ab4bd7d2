import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that are attached to an activity, for all to read. */
export class AttachedFiles1767000000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "activity" ADD "files" jsonb NOT NULL DEFAULT '[]'`);
    await run.query(
      `UPDATE "activity" SET "inWork" = "inWork" || '{"files": []}' WHERE "inWork" IS NOT NULL`,
    );
    await run.query(
      `CREATE TABLE "activity_file" ("activityId" uuid NOT NULL, "fileId" uuid NOT NULL, CONSTRAINT "PK_0fdc65682655dd9c9670b57e871" PRIMARY KEY ("activityId", "fileId"))`,
    );
    await run.query(
      `ALTER TABLE "activity_file" ADD CONSTRAINT "FK_b32268b51ece2cac9a6e458018c" FOREIGN KEY ("activityId") REFERENCES "activity"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `ALTER TABLE "activity_file" ADD CONSTRAINT "FK_46ef1622c1e0ea38145c50374da" FOREIGN KEY ("fileId") REFERENCES "file"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "activity_file"`);
    await run.query(`UPDATE "activity" SET "inWork" = "inWork" - 'files' WHERE "inWork" IS NOT NULL`);
    await run.query(`ALTER TABLE "activity" DROP COLUMN "files"`);
  }
}
