import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Students may choose their places; sets are described and frozen, groups locked, latecomers seated. */
export class SignUp1764600000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const statement of up) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const statement of down) await run.query(statement);
  }
}

const columns = ['description', 'isDescriptionShown', 'latecomers', 'signUp', 'frozenAt', 'version'];

const up = [
  `ALTER TABLE "group_set" ADD "description" text NOT NULL DEFAULT '', ADD "isDescriptionShown" boolean NOT NULL DEFAULT true, ADD "latecomers" text NOT NULL DEFAULT 'leave', ADD "signUp" jsonb, ADD "frozenAt" TIMESTAMP WITH TIME ZONE, ADD "version" integer NOT NULL DEFAULT 1`,
  `ALTER TABLE "group_set" ADD CONSTRAINT "group_set_latecomers" CHECK ("latecomers" IN ('leave', 'smallest'))`,
  `ALTER TABLE "course_group" ADD "isLocked" boolean NOT NULL DEFAULT false`,
];

const down = [
  `ALTER TABLE "course_group" DROP COLUMN "isLocked"`,
  `ALTER TABLE "group_set" ${columns.map((column) => `DROP COLUMN "${column}"`).join(', ')}`,
];
