import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A session has a name of its own, so that its owner can see and end it without its secret being anywhere, and says from where it came. Tries with a
 * password are counted by where they come from, too, and apart for browsers that were let in before. */
export class Sessions1765900000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `ALTER TABLE "session" ADD "id" uuid NOT NULL DEFAULT gen_random_uuid(), ADD "cameFrom" text NOT NULL DEFAULT ''`,
    );
    await run.query(
      `ALTER TABLE "session" ALTER COLUMN "id" DROP DEFAULT, ALTER COLUMN "cameFrom" DROP DEFAULT`,
    );
    await run.query(`CREATE UNIQUE INDEX "session_id" ON "session" ("id")`);
    await run.query(`DROP TABLE "sign_in_failure"`);
    await run.query(
      `CREATE TABLE "sign_in_try" ("id" uuid NOT NULL, "who" text NOT NULL, "client" text NOT NULL, "at" timestamptz NOT NULL, CONSTRAINT "PK_8f911c3a8deec9150d874da1605" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "sign_in_try_by_who" ON "sign_in_try" ("who", "at")`);
    await run.query(`CREATE INDEX "sign_in_try_by_client" ON "sign_in_try" ("client", "at")`);
    await run.query(`CREATE INDEX "sign_in_try_by_time" ON "sign_in_try" ("at")`);
    await run.query(
      `CREATE TABLE "known_device" ("tokenHash" text NOT NULL, "personId" uuid NOT NULL, "usedAt" timestamptz NOT NULL, CONSTRAINT "PK_37d84f73a83df1f70d890ebe75f" PRIMARY KEY ("tokenHash"),
         CONSTRAINT "FK_c5cabf76723e78ada76393663b3" FOREIGN KEY ("personId") REFERENCES "person"("id") ON DELETE NO ACTION ON UPDATE NO ACTION)`,
    );
    await run.query(`CREATE INDEX "known_device_by_person" ON "known_device" ("personId")`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "known_device"`);
    await run.query(`DROP TABLE "sign_in_try"`);
    await run.query(
      `CREATE TABLE "sign_in_failure" ("id" uuid NOT NULL, "addressKey" text NOT NULL, "at" timestamptz NOT NULL, CONSTRAINT "PK_5ad9835b7a6e51262f6fe5024de" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "sign_in_failure_by_address" ON "sign_in_failure" ("addressKey", "at")`);
    await run.query(`DROP INDEX "session_id"`);
    await run.query(`ALTER TABLE "session" DROP COLUMN "cameFrom", DROP COLUMN "id"`);
  }
}
