import type { EntityManager } from 'typeorm';
import type { Move } from '@jigsaw/core/placing';

interface Joined {
  readonly enrolmentId: string;
  readonly groupId: string;
}
const places = (moves: readonly Move[], end: 'from' | 'to'): string =>
  JSON.stringify(
    moves.flatMap((move): Joined[] =>
      move.from === move.to || move[end] === null ? [] : [{ enrolmentId: move.student, groupId: move[end] }],
    ),
  );
const shape = `jsonb_to_recordset($1::jsonb) AS x("enrolmentId" uuid, "groupId" uuid)`;

/** Those who come to a group share what it handed in last, though it was before their time. */
export async function creditNewcomers(manager: EntityManager, moves: readonly Move[]): Promise<void> {
  await manager.query(
    `INSERT INTO "credit" ("handInId", "enrolmentId")
     SELECT h."id", x."enrolmentId" FROM ${shape} JOIN "copy" c ON c."groupId" = x."groupId" JOIN "hand_in" h ON h."copyId" = c."id" AND h."ownerId" IS NULL
      WHERE NOT EXISTS (SELECT 1 FROM "hand_in" later WHERE later."copyId" = h."copyId" AND later."ownerId" IS NULL AND later."attempt" > h."attempt")
     ON CONFLICT DO NOTHING`,
    [places(moves, 'to')],
  );
}

/** Takes that back: what somebody is credited with in a group they leave that was handed in while they were not in it. */
export async function takeCreditsBack(manager: EntityManager, moves: readonly Move[]): Promise<void> {
  await manager.query(
    `DELETE FROM "credit" k USING ${shape}, "copy" c, "hand_in" h
      WHERE k."enrolmentId" = x."enrolmentId" AND c."groupId" = x."groupId" AND h."copyId" = c."id" AND h."ownerId" IS NULL AND k."handInId" = h."id"
        AND NOT EXISTS (SELECT 1 FROM "membership" m WHERE m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId"
                           AND m."from" <= h."handedInAt" AND (m."until" IS NULL OR m."until" > h."handedInAt"))`,
    [places(moves, 'from')],
  );
}
