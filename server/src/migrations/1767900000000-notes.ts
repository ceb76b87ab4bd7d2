import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What staff note about groups. */
export class Notes1767900000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "staff_note" ("id" uuid NOT NULL, "groupId" uuid NOT NULL, "authorId" uuid NOT NULL, "aboutId" uuid, "text" text NOT NULL, "createdAt" TIMESTAMP WITH TIME ZONE NOT NULL, "editedAt" TIMESTAMP WITH TIME ZONE, "deletedAt" TIMESTAMP WITH TIME ZONE, "version" integer NOT NULL, CONSTRAINT "PK_4b0341ff32075e38b56bc6cc886" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "IDX_18c0ce13dc67ab62e19ff3539f" ON "staff_note" ("groupId")`);
    for (const [name, column, table] of [
      ['FK_18c0ce13dc67ab62e19ff3539f3', 'groupId', 'course_group'],
      ['FK_ef6c1eda3ae333f7752a77581c8', 'authorId', 'enrolment'],
      ['FK_6fff6b2580e839e0290f47bef63', 'aboutId', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "staff_note" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "staff_note"`);
  }
}
