import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The history of one set is found without reading that of all. */
export class MovesOfSets1766400000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`CREATE INDEX "membership_by_set" ON "membership" ("setId", "from")`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP INDEX "membership_by_set"`);
  }
}
