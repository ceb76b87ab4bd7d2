import type { EntityManager } from 'typeorm';
import type { SaveMark } from '@jigsaw/contract/marks';
import type { EnrolmentId, CopyId, PersonId } from '@jigsaw/core/ids';
import type { GivenMark } from '@jigsaw/core/marks';
import type { Unit } from '../release/index.js';
import { ReleasedMarkRow } from './marks.rows.js';

interface WrittenMark {
  readonly id: string;
  readonly copyId: CopyId;
  readonly unit: Unit;
  readonly typed: SaveMark;
  readonly version: number;
  readonly workAt: Date | null;
  readonly now: Date;
}

/** One statement, whether the sheet is new or not; what was released of it stays released. */
export async function writeMark(manager: EntityManager, mark: WrittenMark): Promise<void> {
  const { typedMark, overrideReason, picks, feedback } = mark.typed;
  await manager.query(
    `INSERT INTO "mark" ("id", "copyId", "enrolmentId", "typedMark", "overrideReason", "picks", "feedback", "version", "workAt", "updatedAt")
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
     ON CONFLICT ("id") DO UPDATE SET "typedMark" = excluded."typedMark", "overrideReason" = excluded."overrideReason",
       "picks" = excluded."picks", "feedback" = excluded."feedback", "version" = excluded."version",
       "workAt" = excluded."workAt", "updatedAt" = excluded."updatedAt"`,
    [
      mark.id,
      mark.copyId,
      mark.unit === 'group' ? null : mark.unit,
      typedMark,
      overrideReason,
      JSON.stringify(picks),
      feedback,
      mark.version,
      mark.workAt,
      mark.now,
    ],
  );
}

/** The adjustments of these people from now on; one statement. */
export async function writeAdjustments(
  manager: EntityManager,
  copyId: CopyId,
  credited: readonly EnrolmentId[],
  adjustments: SaveMark['adjustments'],
): Promise<void> {
  await manager.query(
    `WITH kept AS (SELECT * FROM jsonb_to_recordset($3::jsonb) AS x("enrolmentId" uuid, "adjustment" jsonb)),
          gone AS (DELETE FROM "mark_adjustment" a WHERE a."copyId" = $1 AND a."enrolmentId" = ANY($2)
                      AND a."enrolmentId" NOT IN (SELECT "enrolmentId" FROM kept))
     INSERT INTO "mark_adjustment" ("copyId", "enrolmentId", "adjustment") SELECT $1, "enrolmentId", "adjustment" FROM kept
     ON CONFLICT ("copyId", "enrolmentId") DO UPDATE SET "adjustment" = excluded."adjustment"`,
    [copyId, credited, JSON.stringify(adjustments)],
  );
}

interface Giving extends GivenMark {
  readonly enrolmentId: EnrolmentId;
  readonly handedInAt: Date | null;
  readonly releasedAt: Date;
  readonly releasedBy: PersonId;
}

/** These people have these marks from now on, new to each of them; anyone who had one of this unit and is not credited has none any more. One
 * statement. */
export async function releaseTo(
  manager: EntityManager,
  copyId: CopyId,
  unit: Unit,
  given: readonly Giving[],
  credited: readonly EnrolmentId[],
): Promise<void> {
  await manager.query(
    `WITH given AS (SELECT * FROM jsonb_to_recordset($3::jsonb) AS x("enrolmentId" uuid, "groupMark" numeric, "mark" numeric, "points" numeric, "steps" jsonb,
                      "rubric" jsonb, "feedback" text, "lateMinutes" int, "latePolicy" jsonb, "handedInAt" timestamptz, "releasedAt" timestamptz, "releasedBy" uuid)),
          gone AS (DELETE FROM "released_mark" r WHERE r."copyId" = $1 AND ($2::uuid IS NULL OR r."enrolmentId" = $2)
                      AND r."enrolmentId" <> ALL($4))
     INSERT INTO "released_mark" ("copyId", "enrolmentId", "groupMark", "mark", "points", "steps", "rubric", "feedback", "lateMinutes",
                                  "latePolicy", "handedInAt", "releasedAt", "releasedBy")
     SELECT $1, "enrolmentId", "groupMark", "mark", "points", "steps", NULLIF("rubric", 'null'::jsonb), "feedback", "lateMinutes",
            NULLIF("latePolicy", 'null'::jsonb), "handedInAt", "releasedAt", "releasedBy" FROM given
     ON CONFLICT ("copyId", "enrolmentId") DO UPDATE SET "groupMark" = excluded."groupMark", "mark" = excluded."mark", "points" = excluded."points",
       "steps" = excluded."steps", "rubric" = excluded."rubric", "feedback" = excluded."feedback", "lateMinutes" = excluded."lateMinutes",
       "latePolicy" = excluded."latePolicy", "handedInAt" = excluded."handedInAt", "releasedAt" = excluded."releasedAt", "releasedBy" = excluded."releasedBy", "seenAt" = NULL`,
    [copyId, unit === 'group' ? null : unit, JSON.stringify(given), credited],
  );
}

/** Takes back what was released for this unit: for the group all of the copy's, anyone who is credited now.
 * @returns from how many students. */
export async function deleteReleased(manager: EntityManager, copyId: CopyId, unit: Unit): Promise<number> {
  const { affected } = await manager.delete(ReleasedMarkRow, {
    copyId,
    ...(unit === 'group' ? {} : { enrolmentId: unit }),
  });
  return affected ?? 0;
}
