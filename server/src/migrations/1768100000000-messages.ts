import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What staff, students and groups write to one another. */
export class Messages1768100000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "message_sending" ("id" uuid NOT NULL, "courseId" uuid NOT NULL, "by" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "subject" text NOT NULL, "text" text NOT NULL, "to" jsonb NOT NULL, "kind" text NOT NULL, "count" integer NOT NULL, "removedAt" TIMESTAMP WITH TIME ZONE, CONSTRAINT "PK_c8b7132c39f7fe2685f7c59e574" PRIMARY KEY ("id"))`,
    );
    await run.query(
      `CREATE TABLE "message_thread" ("id" uuid NOT NULL, "courseId" uuid NOT NULL, "subject" text NOT NULL, "withId" uuid, "groupId" uuid, "startedBy" uuid NOT NULL, "sendingId" uuid, "lastNumber" integer NOT NULL, "lastAt" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_11cb07b9ecf8cb247c5e2dc86ab" PRIMARY KEY ("id"))`,
    );
    await run.query(
      `CREATE TABLE "message" ("id" uuid NOT NULL, "threadId" uuid NOT NULL, "number" integer NOT NULL, "authorId" uuid NOT NULL, "isByStaff" boolean NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "text" text NOT NULL, "removedAt" TIMESTAMP WITH TIME ZONE, "removedBy" uuid, CONSTRAINT "PK_ba01f0a3e0123651915008bc578" PRIMARY KEY ("id"))`,
    );
    await run.query(
      `CREATE TABLE "message_seen" ("threadId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, "upTo" integer NOT NULL, CONSTRAINT "PK_d674dcdb68986457dba9216e473" PRIMARY KEY ("threadId", "enrolmentId"))`,
    );
    for (const index of [
      `INDEX "IDX_b50b20eb0f10e8f1fbd79a4e03" ON "message_sending" ("courseId")`,
      `INDEX "IDX_ef1e318d8703371c3f06987429" ON "message_thread" ("courseId", "lastAt")`,
      `INDEX "IDX_a1dc72ac0cb79ff528edd46004" ON "message_thread" ("withId")`,
      `INDEX "IDX_e7e8e894a8bfa1cc28e97c8af2" ON "message_thread" ("groupId")`,
      `INDEX "IDX_8b618237d4e0e53025af3edbb8" ON "message_thread" ("sendingId")`,
      `UNIQUE INDEX "IDX_29445e0f4cd0fadad13af1937e" ON "message" ("threadId", "number")`,
      `INDEX "message_by_students" ON "message" ("threadId") WHERE NOT "isByStaff"`,
    ])
      await run.query(`CREATE ${index}`);
    for (const [of, name, column, table] of [
      ['message_sending', 'FK_b50b20eb0f10e8f1fbd79a4e037', 'courseId', 'course'],
      ['message_sending', 'FK_f7126e9a47f2181efe0e7aeffd9', 'by', 'enrolment'],
      ['message_thread', 'FK_c2016059bb08d756c180a0e0880', 'courseId', 'course'],
      ['message_thread', 'FK_a1dc72ac0cb79ff528edd460043', 'withId', 'enrolment'],
      ['message_thread', 'FK_e7e8e894a8bfa1cc28e97c8af2e', 'groupId', 'course_group'],
      ['message_thread', 'FK_14fba8b5af5f65d3825db4f1512', 'startedBy', 'enrolment'],
      ['message_thread', 'FK_8b618237d4e0e53025af3edbb8a', 'sendingId', 'message_sending'],
      ['message', 'FK_97e5c5b5590c682a6c487816b6b', 'threadId', 'message_thread'],
      ['message', 'FK_c72d82fa0e8699a141ed6cc41b3', 'authorId', 'enrolment'],
      ['message', 'FK_8bbed792f4fe04077b147c77382', 'removedBy', 'enrolment'],
      ['message_seen', 'FK_04237883828f42a87ead19c3569', 'threadId', 'message_thread'],
      ['message_seen', 'FK_678794d4469621ec2c875ca74b7', 'enrolmentId', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "${of}" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
  }

  async down(run: QueryRunner): Promise<void> {
    for (const table of ['message_seen', 'message', 'message_thread', 'message_sending'])
      await run.query(`DROP TABLE "${table}"`);
  }
}
