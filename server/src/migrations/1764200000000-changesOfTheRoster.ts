import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Every act on a roster is kept as the value that undoes it; mail is kept as it would have gone. */
export class ChangesOfTheRoster1764200000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const statement of up) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "mail"`);
    await run.query(`DROP TABLE "roster_change"`);
  }
}

const up = [
  `CREATE TABLE "roster_change" ("id" uuid NOT NULL, "courseId" uuid NOT NULL, "actorId" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "kind" text NOT NULL, "change" jsonb NOT NULL, "undoneAt" TIMESTAMP WITH TIME ZONE, CONSTRAINT "roster_change_kind" CHECK ("kind" IN ('import', 'add', 'edit', 'drop', 'bring-back', 'undo')), CONSTRAINT "PK_roster_change" PRIMARY KEY ("id"))`,
  `CREATE INDEX "roster_change_by_course" ON "roster_change" ("courseId", "at")`,
  `ALTER TABLE "roster_change" ADD CONSTRAINT "FK_203b0ee424b4881be6f1f3f4b0b" FOREIGN KEY ("courseId") REFERENCES "course"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
  `ALTER TABLE "roster_change" ADD CONSTRAINT "FK_5ec38c688e5df2dcacc630ea77c" FOREIGN KEY ("actorId") REFERENCES "person"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
  `CREATE TABLE "mail" ("id" uuid NOT NULL, "courseId" uuid NOT NULL, "personId" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "toName" text NOT NULL, "toAddress" text NOT NULL, "text" jsonb NOT NULL, CONSTRAINT "PK_mail" PRIMARY KEY ("id"))`,
  `CREATE INDEX "mail_by_course" ON "mail" ("courseId", "at")`,
  `CREATE INDEX "mail_by_person" ON "mail" ("personId")`,
  `ALTER TABLE "mail" ADD CONSTRAINT "FK_cbcce3c8f98eb3497148b622db1" FOREIGN KEY ("courseId") REFERENCES "course"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
  `ALTER TABLE "mail" ADD CONSTRAINT "FK_44355646952f2fc5ed66f90b892" FOREIGN KEY ("personId") REFERENCES "person"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
];
