import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whatever is asked of many copies asks for their hand-ins, whosever they are. */
export class HandInsByCopy1766000000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`CREATE INDEX "hand_in_by_copy" ON "hand_in" ("copyId")`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP INDEX "hand_in_by_copy"`);
  }
}
