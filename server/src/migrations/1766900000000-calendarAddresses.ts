import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Addresses under which calendars read what someone has to keep. */
export class CalendarAddresses1766900000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "calendar_address" ("id" uuid NOT NULL, "personId" uuid NOT NULL, "tokenHash" text NOT NULL, "label" text NOT NULL, "createdAt" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_427c75ab86f19977985915058a2" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "calendar_address_by_person" ON "calendar_address" ("personId")`);
    await run.query(`CREATE UNIQUE INDEX "calendar_address_token" ON "calendar_address" ("tokenHash")`);
    await run.query(
      `ALTER TABLE "calendar_address" ADD CONSTRAINT "FK_0076e94eb7c39fcc8b7e55edb0e" FOREIGN KEY ("personId") REFERENCES "person"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "calendar_address"`);
  }
}
