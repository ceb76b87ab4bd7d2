import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { Move } from '@jigsaw/core/placing';
import type { Credited, WorkOfGroups } from '../placing/index.js';

interface Joined {
  readonly enrolmentId: EnrolmentId;
  readonly groupId: GroupId;
}

const shape = `jsonb_to_recordset($1::jsonb) AS x("enrolmentId" uuid, "groupId" uuid)`;

/** Who is credited with what a group handed in, when people move between groups. */
@Injectable()
export class Credits implements WorkOfGroups {
  creditedIn(
    manager: EntityManager,
    setId: GroupSetId,
    only: readonly EnrolmentId[] | null,
  ): Promise<readonly Credited[]> {
    return manager.query<Credited[]>(
      `SELECT k."enrolmentId", c."groupId", count(*)::int AS "handIns"
         FROM "released_copy" c JOIN "hand_in" h ON h."copyId" = c."copyId" JOIN "credit" k ON k."handInId" = h."id"
        WHERE c."setId" = $1 AND c."groupId" IS NOT NULL AND ($2::uuid[] IS NULL OR k."enrolmentId" = ANY($2)) GROUP BY 1, 2`,
      [setId, only],
    );
  }

  async hasHandedIn(manager: EntityManager, groupId: GroupId, enrolmentId: EnrolmentId): Promise<boolean> {
    const [handIn] = await manager.query<unknown[]>(
      `SELECT 1 FROM "credit" k JOIN "hand_in" h ON h."id" = k."handInId" JOIN "released_copy" c ON c."copyId" = h."copyId"
        WHERE k."enrolmentId" = $1 AND c."groupId" = $2 LIMIT 1`,
      [enrolmentId, groupId],
    );
    return handIn !== undefined;
  }

  async creditNewcomers(manager: EntityManager, moves: readonly Move[]): Promise<void> {
    await manager.query(
      `INSERT INTO "credit" ("handInId", "enrolmentId")
       SELECT h."id", x."enrolmentId" FROM ${shape} JOIN "released_copy" c ON c."groupId" = x."groupId"
         JOIN "hand_in" h ON h."copyId" = c."copyId" AND h."ownerId" IS NULL
        WHERE NOT EXISTS (SELECT 1 FROM "hand_in" later
                           WHERE later."copyId" = h."copyId" AND later."ownerId" IS NULL AND later."attempt" > h."attempt")
       ON CONFLICT DO NOTHING`,
      [places(moves, 'to')],
    );
  }

  async takeCreditsBack(manager: EntityManager, moves: readonly Move[]): Promise<void> {
    await manager.query(
      `DELETE FROM "credit" k USING ${shape}, "released_copy" c, "hand_in" h
        WHERE k."enrolmentId" = x."enrolmentId" AND c."groupId" = x."groupId" AND h."copyId" = c."copyId"
          AND h."ownerId" IS NULL AND k."handInId" = h."id"
          AND NOT EXISTS (SELECT 1 FROM "stay" s WHERE s."enrolmentId" = x."enrolmentId" AND s."groupId" = x."groupId"
                             AND s."from" <= h."handedInAt" AND (s."until" IS NULL OR s."until" > h."handedInAt"))`,
      [places(moves, 'from')],
    );
  }
}

/** Where people come to, or where they leave, as the queries read it. */
const places = (moves: readonly Move[], end: 'from' | 'to'): string =>
  JSON.stringify(
    moves.flatMap((move): Joined[] =>
      move.from === move.to || move[end] === null ? [] : [{ enrolmentId: move.student, groupId: move[end] }],
    ),
  );
