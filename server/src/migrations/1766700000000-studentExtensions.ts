import type { MigrationInterface, QueryRunner } from 'typeorm';

/** One student may have longer than their group. */
export class StudentExtensions1766700000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "student_extension" ("activityId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, "due" TIMESTAMP WITH TIME ZONE NOT NULL, "closes" TIMESTAMP WITH TIME ZONE, "reason" text NOT NULL, "grantedBy" uuid NOT NULL, "grantedAt" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_4d2e94e73d4cd9cfaec5fabbbf1" PRIMARY KEY ("activityId", "enrolmentId"))`,
    );
    await run.query(
      `ALTER TABLE "student_extension" ADD CONSTRAINT "FK_6de9952723961e4485766ecd6e5" FOREIGN KEY ("activityId") REFERENCES "activity"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `ALTER TABLE "student_extension" ADD CONSTRAINT "FK_7796d8d1984b50d30799e87a118" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `ALTER TABLE "student_extension" ADD CONSTRAINT "FK_5977351d8fdc43f57737b71713d" FOREIGN KEY ("grantedBy") REFERENCES "person"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "student_extension"`);
  }
}
