import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Two entries of one person can be made one, and parted again. */
export class JoinedEntries1764400000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const statement of up) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const statement of down) await run.query(statement);
  }
}

const kinds = (...more: string[]) =>
  ['import', 'sync', 'add', 'edit', 'drop', 'bring-back', ...more, 'undo']
    .map((kind) => `'${kind}'`)
    .join(', ');

const up = [
  `ALTER TABLE "enrolment" ADD "joinedTo" uuid`,
  `ALTER TABLE "enrolment" ADD CONSTRAINT "FK_0cbbfc3e292b9458324ee66ba4c" FOREIGN KEY ("joinedTo") REFERENCES "enrolment"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
  `ALTER TABLE "roster_change" ADD "traces" jsonb`,
  `ALTER TABLE "roster_change" DROP CONSTRAINT "roster_change_kind"`,
  `ALTER TABLE "roster_change" ADD CONSTRAINT "roster_change_kind" CHECK ("kind" IN (${kinds('join')}))`,
];

const down = [
  `DELETE FROM "roster_change" WHERE "kind" = 'join'`,
  `ALTER TABLE "roster_change" DROP CONSTRAINT "roster_change_kind"`,
  `ALTER TABLE "roster_change" ADD CONSTRAINT "roster_change_kind" CHECK ("kind" IN (${kinds()}))`,
  `ALTER TABLE "roster_change" DROP COLUMN "traces"`,
  `ALTER TABLE "enrolment" DROP CONSTRAINT "FK_0cbbfc3e292b9458324ee66ba4c"`,
  `ALTER TABLE "enrolment" DROP COLUMN "joinedTo"`,
];
