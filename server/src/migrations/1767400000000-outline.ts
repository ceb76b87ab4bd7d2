import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The order in which a course shows its activities, under headings. */
export class OutlineOfCourses1767400000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "heading" ("id" uuid NOT NULL, "courseId" uuid NOT NULL, "title" text NOT NULL, "position" integer NOT NULL, "version" integer NOT NULL DEFAULT 1, "createdAt" TIMESTAMP WITH TIME ZONE NOT NULL, "deletedAt" TIMESTAMP WITH TIME ZONE, CONSTRAINT "PK_3cd59a8155050bda89bf9f617d6" PRIMARY KEY ("id"))`,
    );
    await run.query(`CREATE INDEX "heading_by_course" ON "heading" ("courseId")`);
    await run.query(
      `ALTER TABLE "heading" ADD CONSTRAINT "FK_c7b2c61e91e62a38ed84f5de2b7" FOREIGN KEY ("courseId") REFERENCES "course"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `CREATE TABLE "outline_place" ("activityId" uuid NOT NULL, "courseId" uuid NOT NULL, "headingId" uuid, "position" integer NOT NULL, CONSTRAINT "PK_267651f3cfda71bf19d1afcb2c2" PRIMARY KEY ("activityId"))`,
    );
    await run.query(`CREATE INDEX "outline_place_by_course" ON "outline_place" ("courseId")`);
    for (const [name, column, table] of [
      ['FK_267651f3cfda71bf19d1afcb2c2', 'activityId', 'activity'],
      ['FK_6c7936363fd3fd0cfcb954279c4', 'courseId', 'course'],
      ['FK_4be114dc307649ad299ef416fd9', 'headingId', 'heading'],
    ])
      await run.query(
        `ALTER TABLE "outline_place" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "outline_place"`);
    await run.query(`DROP TABLE "heading"`);
  }
}
