import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the members of a group share with one another. */
export class Shelf1768000000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "shelf_file" ("id" uuid NOT NULL, "groupId" uuid NOT NULL, "addedBy" uuid NOT NULL, "removedAt" TIMESTAMP WITH TIME ZONE, "removedBy" uuid, CONSTRAINT "PK_7e506098f563768e1b43478f237" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "IDX_82dc60a1fe6aa63a1503fd1228" ON "shelf_file" ("groupId")`);
    await run.query(
      `CREATE TABLE "shelf_version" ("fileId" uuid NOT NULL, "number" integer NOT NULL, "storedId" uuid NOT NULL, "by" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "restored" integer, CONSTRAINT "PK_9132d06d2980893d4d3641902a2" PRIMARY KEY ("fileId", "number"))`,
    );
    await run.query(
      `CREATE TABLE "shelf_seen" ("groupId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, "upTo" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_0cb47cbc602312ae81a0cc7f632" PRIMARY KEY ("groupId", "enrolmentId"))`,
    );
    for (const [of, name, column, table] of [
      ['shelf_file', 'FK_82dc60a1fe6aa63a1503fd12286', 'groupId', 'course_group'],
      ['shelf_file', 'FK_0997723ed362a2271120c160cec', 'addedBy', 'enrolment'],
      ['shelf_file', 'FK_cee9f9228a51877cd661cdb4d66', 'removedBy', 'enrolment'],
      ['shelf_version', 'FK_8e3f5d14bf5b0812e6f8586b96c', 'fileId', 'shelf_file'],
      ['shelf_version', 'FK_05a25a128226ec2b94e8acdb285', 'storedId', 'file'],
      ['shelf_version', 'FK_92fc3000dee9f8f2c086c01a05a', 'by', 'enrolment'],
      ['shelf_seen', 'FK_5eb76b6a2fdf3fb3964aa5ce0de', 'groupId', 'course_group'],
      ['shelf_seen', 'FK_add20ced4eb36827e3621568c25', 'enrolmentId', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "${of}" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    for (const table of ['shelf_seen', 'shelf_version', 'shelf_file'])
      await run.query(`DROP TABLE "${table}"`);
  }
}
