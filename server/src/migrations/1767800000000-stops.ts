import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What staff said to the stops of their rounds. */
export class Stops1767800000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "stop_answer" ("enrolmentId" uuid NOT NULL, "groupId" uuid NOT NULL, "code" text NOT NULL, "subjectId" uuid NOT NULL, "said" text NOT NULL, "upTo" TIMESTAMP WITH TIME ZONE NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_cc49aa368676cf7ae4830180bc2" PRIMARY KEY ("enrolmentId", "groupId", "code", "subjectId"))`,
    );
    await run.query(
      `ALTER TABLE "stop_answer" ADD CONSTRAINT "FK_5b38d429d2c7debbc9f828ee21b" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "stop_answer"`);
  }
}
