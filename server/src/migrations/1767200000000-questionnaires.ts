import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Questionnaires: who has answered, and apart from that, what. */
export class Questionnaires1767200000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "answered" ("copyId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, CONSTRAINT "PK_2b23f53282de5cb2cfa2ae3a047" PRIMARY KEY ("copyId", "enrolmentId"))`,
    );
    await run.query(
      `CREATE TABLE "answer_sheet" ("id" uuid NOT NULL, "copyId" uuid NOT NULL, "enrolmentId" uuid, "answers" jsonb NOT NULL, "version" integer NOT NULL, "at" TIMESTAMP WITH TIME ZONE, CONSTRAINT "PK_ef5379f5ea02fbf44ca7049fbd2" PRIMARY KEY ("id"))`,
    );
    await run.query(
      `CREATE UNIQUE INDEX "answer_sheet_of_person" ON "answer_sheet" ("copyId", "enrolmentId")`,
    );
    for (const [table, name, column, to] of [
      ['answered', 'FK_358d3284216a0f425f453cc2e85', 'copyId', 'copy'],
      ['answered', 'FK_70d3a57355e1760d442f188cd3d', 'enrolmentId', 'enrolment'],
      ['answer_sheet', 'FK_5417256ebbbc00c0ffc0ca3f8a5', 'copyId', 'copy'],
      ['answer_sheet', 'FK_bfa5be293bdc069b97a6f8320d6', 'enrolmentId', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "${table}" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${to}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "answer_sheet"`);
    await run.query(`DROP TABLE "answered"`);
  }
}
