import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What may stay as it is, and why. */
export class Checks1767600000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "check_dismissal" ("courseId" uuid NOT NULL, "checkId" text NOT NULL, "reason" text NOT NULL, "by" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_b6dc84d4e2080185e97b7a7893e" PRIMARY KEY ("courseId", "checkId"))`,
    );
    for (const [name, column, table] of [
      ['FK_7b4158ae6e2258aaa3f0ce0d59f', 'courseId', 'course'],
      ['FK_77584e9dc4ef33e060336a5e10d', 'by', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "check_dismissal" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "check_dismissal"`);
  }
}
