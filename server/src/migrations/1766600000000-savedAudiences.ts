import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Combinations of sets, groups and people can be kept under a name. */
export class SavedAudiences1766600000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "saved_audience" ("id" uuid NOT NULL, "courseId" uuid NOT NULL, "name" text NOT NULL, "terms" jsonb NOT NULL, "version" integer NOT NULL DEFAULT 1, "createdAt" TIMESTAMP WITH TIME ZONE NOT NULL, "deletedAt" TIMESTAMP WITH TIME ZONE, CONSTRAINT "PK_930603eebd0d37382d9d6f20671" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "saved_audience_by_course" ON "saved_audience" ("courseId")`);
    await run.query(
      `ALTER TABLE "saved_audience" ADD CONSTRAINT "FK_95ade6d105a0e56948584a649ae" FOREIGN KEY ("courseId") REFERENCES "course"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
  }

  /** Releases to a saved audience reach no one. */
  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "saved_audience"`);
  }
}
