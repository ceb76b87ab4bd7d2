import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Copies that are news in themselves: a notice, an event. */
export class Announcements1766800000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "announced" ("copyId" uuid NOT NULL, "by" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "edition" integer NOT NULL DEFAULT '1', CONSTRAINT "PK_c31b698a1dc6e5191120232ca09" PRIMARY KEY ("copyId"))`,
    );
    await run.query(
      `ALTER TABLE "announced" ADD CONSTRAINT "FK_c31b698a1dc6e5191120232ca09" FOREIGN KEY ("copyId") REFERENCES "copy"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `ALTER TABLE "announced" ADD CONSTRAINT "FK_d255e62ab67e76fa20f5a2997a6" FOREIGN KEY ("by") REFERENCES "enrolment"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "announced"`);
  }
}
