import type { EntityManager } from 'typeorm';
import type { MovesAct } from '@jigsaw/contract/placing';
import type { CourseId, EnrolmentId, GroupSetId, PersonId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import { toldApart } from '../course/index.js';

interface MoveRow {
  readonly at: Date;
  readonly by: PersonId;
  readonly byName: string;
  readonly count: number;
  readonly placed: number;
  readonly removed: number;
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly from: MovesAct['moves'][number]['from'];
  readonly to: MovesAct['moves'][number]['to'];
  readonly why: string | null;
  readonly isOwn: boolean;
}

interface SetOfMoves {
  readonly id: GroupSetId;
  readonly courseId: CourseId;
}

/** People named of one act; the others are counted. */
const namedInAct = 20;

/** The moves in a set with who made them, the latest act first: all that one person did at one moment, by whatever way.
 * @param reader whose own acts are marked.
 * @param within only what was earlier than `before`, and not earlier than `since`; null: without that bound.
 * @param most acts at most. */
export async function actsIn(
  manager: EntityManager,
  set: SetOfMoves,
  reader: PersonId,
  within: { readonly before: Date | null; readonly since: Date | null },
  most: number,
): Promise<MovesAct[]> {
  const rows = await manager.query<MoveRow[]>(
    `WITH "turned" AS (
       SELECT "from" AS "at", "placedBy" AS "by", "enrolmentId", "groupId", true AS "isTo", "why" FROM "membership"
        WHERE "setId" = $1 AND "from" >= coalesce($5::timestamptz, '-infinity')
       UNION ALL
       SELECT "until", "endedBy", "enrolmentId", "groupId", false, "endedWhy" FROM "membership"
        WHERE "setId" = $1 AND "endedBy" IS NOT NULL AND "until" >= coalesce($5::timestamptz, '-infinity')
     ), "acts" AS (
       SELECT "at", "by", count(DISTINCT "enrolmentId")::int AS "count" FROM "turned"
        WHERE $2::timestamptz IS NULL OR "at" < $2 GROUP BY "at", "by" ORDER BY "at" DESC, "by" LIMIT $3
     ), "moved" AS (
       SELECT a."at", a."by", a."count", t."enrolmentId", p."name", p."personId" = a."by" AS "isOwn", max(t."why") AS "why",
              coalesce(jsonb_agg(jsonb_build_object('number', g."number", 'name', g."name") ORDER BY g."number") FILTER (WHERE NOT t."isTo"), '[]') AS "from",
              coalesce(jsonb_agg(jsonb_build_object('number', g."number", 'name', g."name") ORDER BY g."number") FILTER (WHERE t."isTo"), '[]') AS "to",
              sum(CASE WHEN bool_and(t."isTo") THEN 1 ELSE 0 END) OVER (PARTITION BY a."at", a."by")::int AS "placed",
              sum(CASE WHEN bool_or(t."isTo") THEN 0 ELSE 1 END) OVER (PARTITION BY a."at", a."by")::int AS "removed",
              row_number() OVER (PARTITION BY a."at", a."by" ORDER BY p."name", t."enrolmentId") AS "place"
         FROM "acts" a JOIN "turned" t ON t."at" = a."at" AND t."by" = a."by"
         JOIN "set_group" g ON g."groupId" = t."groupId" JOIN "course_person" p ON p."enrolmentId" = t."enrolmentId"
        GROUP BY a."at", a."by", a."count", t."enrolmentId", p."name", p."personId"
     )
     SELECT m.*, b."name" AS "byName" FROM "moved" m JOIN "account" b ON b."personId" = m."by"
      WHERE m."place" <= $4 ORDER BY m."at" DESC, m."by", m."place"`,
    [set.id, within.before, most, namedInAct, within.since],
  );
  const apart = await toldApart(manager, set.courseId);
  return [...groupedBy(rows, (row) => `${row.at.getTime()} ${row.by}`).values()].map((moves) => {
    const { at, by, byName, count, placed, removed, isOwn } = sure(moves[0]);
    return {
      at: at.toISOString(),
      by: byName,
      isYours: by === reader,
      isOwnChoice: count === 1 && isOwn,
      count,
      placed,
      removed,
      why: moves.find((move) => move.why !== null)?.why ?? null,
      moves: moves.map(({ enrolmentId, name, from, to }) => ({
        enrolmentId,
        name: apart(enrolmentId, name),
        from,
        to,
      })),
    };
  });
}

/** The last act of a set; null: no one ever had a place. Only its own moment is looked at, so that a long history costs a Board nothing. */
export async function latestAct(
  manager: EntityManager,
  set: SetOfMoves,
  reader: PersonId,
): Promise<MovesAct | null> {
  const [last] = await manager.query<{ since: Date | null }[]>(
    `SELECT greatest(max("from"), max("until") FILTER (WHERE "endedBy" IS NOT NULL)) AS "since" FROM "membership" WHERE "setId" = $1`,
    [set.id],
  );
  const { since } = sure(last);
  if (since === null) return null;
  const [act] = await actsIn(manager, set, reader, { before: null, since }, 1);
  return act ?? null;
}
