import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables, kinds and events say delete, restore and archive, like the pages do. */
export class PlainNames1766300000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const [table, before, now] of columns)
      await run.query(`ALTER TABLE "${table}" RENAME COLUMN "${before}" TO "${now}"`);
    await run.query(`ALTER TABLE "post" RENAME CONSTRAINT "${foreignKey.before}" TO "${foreignKey.now}"`);
    for (const [before, now] of events)
      await run.query(`UPDATE "event" SET "type" = $2 WHERE "type" = $1`, [before, now]);
    await renameKind(run, 'bring-back', 'restore');
  }

  async down(run: QueryRunner): Promise<void> {
    await renameKind(run, 'restore', 'bring-back');
    for (const [before, now] of events)
      await run.query(`UPDATE "event" SET "type" = $1 WHERE "type" = $2`, [before, now]);
    await run.query(`ALTER TABLE "post" RENAME CONSTRAINT "${foreignKey.now}" TO "${foreignKey.before}"`);
    for (const [table, before, now] of columns)
      await run.query(`ALTER TABLE "${table}" RENAME COLUMN "${now}" TO "${before}"`);
  }
}

const columns = [
  ['post', 'takenOutAt', 'deletedAt'],
  ['post', 'takenOutBy', 'deletedBy'],
  ['wiki_page', 'takenOutAt', 'deletedAt'],
  ['work_file', 'takenOutAt', 'deletedAt'],
  ['group_set', 'putAwayAt', 'archivedAt'],
  ['set_group', 'setPutAwayAt', 'setArchivedAt'],
] as const;

/** Named by what it is of, so its name follows the column's. */
const foreignKey = { before: 'FK_d61b4f064dab8209419e2043207', now: 'FK_0001e6a0ebc3af1fd8c9f7eea4d' };

const events = ['post', 'page', 'file'].flatMap((what) => [
  [`${what}.taken-out`, `${what}.deleted`],
  [`${what}.put-back`, `${what}.restored`],
]);

async function renameKind(run: QueryRunner, before: string, now: string): Promise<void> {
  const kinds = ['import', 'sync', 'add', 'edit', 'drop', now, 'join', 'rename-attribute', 'undo'];
  await run.query(`ALTER TABLE "roster_change" DROP CONSTRAINT "roster_change_kind"`);
  await run.query(`UPDATE "roster_change" SET "kind" = $2 WHERE "kind" = $1`, [before, now]);
  await run.query(
    `ALTER TABLE "roster_change" ADD CONSTRAINT "roster_change_kind" CHECK ("kind" IN (${kinds.map((kind) => `'${kind}'`).join(', ')}))`,
  );
}
