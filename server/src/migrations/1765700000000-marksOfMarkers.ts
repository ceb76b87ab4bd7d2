import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A sheet belongs to a marker, or is the one that is agreed and released: all sheets so far are. */
export class MarksOfMarkers1765700000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `ALTER TABLE "mark" ADD "markerId" uuid CONSTRAINT "FK_a025a9458c1284fa246d8a76998" REFERENCES "person"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(`DROP INDEX "mark_of_group"`);
    await run.query(`DROP INDEX "mark_of_student"`);
    for (const [name, columns, where] of indexes)
      await run.query(`CREATE UNIQUE INDEX "${name}" ON "mark" (${columns}) WHERE ${where}`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DELETE FROM "mark" WHERE "markerId" IS NOT NULL`);
    for (const [name] of indexes) await run.query(`DROP INDEX "${name}"`);
    await run.query(`ALTER TABLE "mark" DROP COLUMN "markerId"`);
    await run.query(`CREATE UNIQUE INDEX "mark_of_group" ON "mark" ("copyId") WHERE "enrolmentId" IS NULL`);
    await run.query(
      `CREATE UNIQUE INDEX "mark_of_student" ON "mark" ("copyId", "enrolmentId") WHERE "enrolmentId" IS NOT NULL`,
    );
  }
}

const indexes = [
  ['agreed_mark_of_group', '"copyId"', '"enrolmentId" IS NULL AND "markerId" IS NULL'],
  ['agreed_mark_of_student', '"copyId", "enrolmentId"', '"enrolmentId" IS NOT NULL AND "markerId" IS NULL'],
  ['mark_of_group_by_marker', '"copyId", "markerId"', '"enrolmentId" IS NULL AND "markerId" IS NOT NULL'],
  [
    'mark_of_student_by_marker',
    '"copyId", "enrolmentId", "markerId"',
    '"enrolmentId" IS NOT NULL AND "markerId" IS NOT NULL',
  ],
] as const;
