import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Standing calls: who was in, and where their doors lead. */
export class Calls1767100000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "call_visit" ("id" uuid NOT NULL, "copyId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, "cameAt" TIMESTAMP WITH TIME ZONE NOT NULL, "seenAt" TIMESTAMP WITH TIME ZONE NOT NULL, "leftAt" TIMESTAMP WITH TIME ZONE, CONSTRAINT "PK_74ca5dfc0e6031d5b0919676fbc" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "call_visit_by_copy" ON "call_visit" ("copyId", "cameAt")`);
    await run.query(
      `CREATE TABLE "call_door" ("copyId" uuid NOT NULL, "address" text NOT NULL, "version" integer NOT NULL, "changedBy" uuid NOT NULL, CONSTRAINT "PK_4a59e9d398d52453fd53f8ec1ae" PRIMARY KEY ("copyId"))`,
    );
    for (const [table, name, column, to] of [
      ['call_visit', 'FK_b1ae58f19d4aa556eaf458fefa7', 'copyId', 'copy'],
      ['call_visit', 'FK_f2acfa2c9349a6362cba9e3cfb9', 'enrolmentId', 'enrolment'],
      ['call_door', 'FK_4a59e9d398d52453fd53f8ec1ae', 'copyId', 'copy'],
      ['call_door', 'FK_43a90db9d864aa9c36b35dbd81c', 'changedBy', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "${table}" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${to}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "call_door"`);
    await run.query(`DROP TABLE "call_visit"`);
  }
}
