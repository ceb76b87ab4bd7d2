import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { Progress } from '@jigsaw/contract/release';
import type { CopyId, ReleaseId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { Asked, Opening } from './kinds.js';
import { AnnouncedRow } from './release.rows.js';

async function announce({
  copies,
  manager,
  now,
  by,
}: Pick<Opening<unknown>, 'copies' | 'manager' | 'now' | 'by'>): Promise<void> {
  await manager.insert(
    AnnouncedRow,
    copies.map((copy) => ({ copyId: copy.id, by, at: now, edition: 1 })),
  );
}

/** They are no news to anyone, where no one was ever in them. */
async function takeBack(manager: EntityManager, copyIds: readonly CopyId[]): Promise<void> {
  await manager.query(`DELETE FROM "announced" WHERE "copyId" = ANY($1)`, [copyIds]);
}

/** What is in them has changed, so that they are new again to all who had read them.
 * @param only these of the release; null: all. */
export async function announceAgain(
  manager: EntityManager,
  releaseId: ReleaseId,
  now: Date,
  only: readonly CopyId[] | null = null,
): Promise<void> {
  await manager.query(
    `UPDATE "announced" n SET "edition" = n."edition" + 1, "at" = $2 FROM "copy" c WHERE c."id" = n."copyId" AND c."releaseId" = $1
        AND ($3::uuid[] IS NULL OR c."id" = ANY($3))`,
    [releaseId, now, only],
  );
}

/** How often what is in them was changed, and when last, by copy; of copies that are news in themselves. */
export async function editionsOf(
  manager: EntityManager,
  copyIds: readonly CopyId[],
): Promise<ReadonlyMap<CopyId, AnnouncedRow>> {
  const rows = copyIds.length === 0 ? [] : await manager.findBy(AnnouncedRow, { copyId: In([...copyIds]) });
  return keyedBy(rows, (row) => row.copyId);
}

/** Such copies as items, as `itemsSql` wants them. One that was scheduled is as old as the moment at which it came out. */
const announcedSql = (copies: string): string =>
  `SELECT n."copyId", n."copyId" AS "subjectId", n."edition" AS "version", n."by" AS "authorId", NULL::uuid AS "ownerId",
          GREATEST(n."at", r."stateAt", a."opens") AS "at", '' AS "excerpt"
     FROM "announced" n JOIN "copy" c ON c."id" = n."copyId" JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"
    WHERE n."copyId" = ANY(${copies})`;

/** What kinds have in common whose copies are news in themselves and ask nothing of anyone. */
export const asNews = {
  begin: announce,
  end: takeBack,
  itemsSql: announcedSql,
  progress: ({ accesses }: Asked): Promise<Map<string, Progress>> =>
    Promise.resolve(
      new Map(
        accesses.map(({ copy }) => [
          copy.id,
          { state: 'in-work', isYours: false, owes: false, at: null, late: null, done: null, asked: null },
        ]),
      ),
    ),
  works: () => Promise.resolve([]),
  evidence: () => Promise.resolve(new Map<string, never>()),
} as const;
