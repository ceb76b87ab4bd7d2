import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A number a person that moves whenever they have seen something: what is counted of the unread for them stays true as long as it stands. */
export class HowMuchWasSeen1766100000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "seen_count" ("enrolmentId" uuid NOT NULL, "count" bigint NOT NULL, CONSTRAINT "seen_count_one_each" PRIMARY KEY ("enrolmentId"))`,
    );
    await run.query(
      `ALTER TABLE "seen_count" ADD CONSTRAINT "FK_df502e039f0f1edb03c1ff4b5e8" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment"("id")`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "seen_count"`);
  }
}
