import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { MarkSeen, RoomItem, SeenAnswer } from '@jigsaw/contract/rooms';
import type { Viewer } from '@jigsaw/core/course';
import type { CopyId, EnrolmentId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import type { ActivityRow, CopyAccess, ReleaseRow } from '../release/index.js';
import { Gate, Kinds } from '../release/index.js';

export interface CopyNews {
  readonly unread: number;
  readonly latest: RoomItem['latest'];
}

export interface Released {
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
}
export interface UnreadCopy {
  readonly releaseId: ReleaseId;
  readonly copyId: CopyId;
  /** null: one copy for all. */
  readonly groupId: GroupId | null;
  readonly unread: number;
}
export interface LatestInCopy {
  readonly copyId: CopyId;
  readonly at: Date;
  readonly by: string;
}

interface LastItem {
  readonly copyId: CopyId;
  readonly at: Date;
  readonly excerpt: string;
  readonly authorId: EnrolmentId;
  readonly by: string;
  readonly isNew: boolean;
}

interface Written {
  readonly copyId: CopyId;
  readonly authorId: EnrolmentId;
  /** null: before that. */
  readonly day: number | null;
  readonly count: number;
  readonly at: Date;
}

const nothing: CopyNews = { unread: 0, latest: null };

/** What is new to someone: items by others, of any kind, in a version that they have not seen. */
@Injectable()
export class News {
  constructor(
    private readonly dataSource: DataSource,
    private readonly kinds: Kinds,
    private readonly gate: Gate,
    private readonly clock: Clock,
  ) {}

  /** For many copies of one person at once: one query, however many copies and kinds. */
  async of(accesses: readonly CopyAccess[]): Promise<(copyId: CopyId) => CopyNews> {
    const [first] = accesses;
    if (!first) return () => nothing;
    const { sql, lists } = this.itemsOf(accesses);
    const rows = await this.dataSource.query<
      { copyId: CopyId; unread: number; at: Date; excerpt: string; by: string; authorId: EnrolmentId }[]
    >(
      `WITH item AS (${sql}),
            shown AS (SELECT * FROM item WHERE ${visible}),
            counted AS (SELECT i."copyId", count(*) FILTER (WHERE ${isNew})::int AS "unread"
                          FROM shown i LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1 GROUP BY i."copyId"),
            latest AS (SELECT DISTINCT ON ("copyId") "copyId", "at", "excerpt", "authorId" FROM shown ORDER BY "copyId", "at" DESC)
       SELECT c."copyId", c."unread", l."at", l."excerpt", l."authorId", p."name" AS "by"
         FROM counted c JOIN latest l ON l."copyId" = c."copyId"
         JOIN "author" p ON p."enrolmentId" = l."authorId"`,
      [first.viewer.enrolmentId, seesAll(first), ...lists],
    );
    const byCopy = new Map(
      rows.map(({ copyId, unread, at, excerpt, by, authorId }) => [
        copyId,
        {
          unread,
          latest: {
            at: at.toISOString(),
            by,
            byYou: authorId === first.viewer.enrolmentId,
            excerpt: excerpt.slice(0, 140),
          },
        },
      ]),
    );
    return (copyId) => byCopy.get(copyId) ?? nothing;
  }

  /** What was written last in these copies, as far as their viewer may read it; the newest first. */
  async lastItems(accesses: readonly CopyAccess[], most: number): Promise<readonly LastItem[]> {
    const [first] = accesses;
    if (!first) return [];
    const { sql, lists } = this.itemsOf(accesses);
    return this.dataSource.query<LastItem[]>(
      `SELECT i."copyId", i."at", i."excerpt", i."authorId", p."name" AS "by", ${isNew} AS "isNew"
         FROM (SELECT * FROM (${sql}) item WHERE ${visible}) i
         LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1
         JOIN "author" p ON p."enrolmentId" = i."authorId"
        ORDER BY i."at" DESC, i."subjectId" LIMIT ${most}`,
      [first.viewer.enrolmentId, seesAll(first), ...lists],
    );
  }

  /** How many items of these copies are new to their viewer. One query that tells a number. */
  async count(accesses: readonly CopyAccess[]): Promise<number> {
    const [first] = accesses;
    if (!first) return 0;
    const { sql, lists } = this.itemsOf(accesses, 'without excerpts');
    const rows = await this.dataSource.query<{ unread: number }[]>(
      `SELECT count(*)::int AS "unread" FROM (SELECT * FROM (${sql}) item WHERE ${visible}) i
         LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1 WHERE ${isNew}`,
      [first.viewer.enrolmentId, seesAll(first), ...lists],
    );
    return rows[0]?.unread ?? 0;
  }

  /** The same for all copies of these releases, by copy, for someone who sees all of them. What is read is left out. */
  async unreadIn(viewer: Viewer, releases: readonly Released[]): Promise<readonly UnreadCopy[]> {
    const { sql, lists } = this.itemsIn(releases, 1);
    if (lists.length === 0) return [];
    return this.dataSource.query<UnreadCopy[]>(
      `SELECT c."releaseId", c."copyId", c."groupId", n."unread" FROM (
         SELECT i."copyId", count(*)::int AS "unread" FROM (${sql}) i
           LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1 WHERE ${isNew} GROUP BY i."copyId") n
         JOIN "released_copy" c ON c."copyId" = n."copyId"`,
      [viewer.enrolmentId, ...lists],
    );
  }

  /** What was written last in each copy of these releases, as someone who sees all of them may read it. */
  async latestIn(releases: readonly Released[]): Promise<readonly LatestInCopy[]> {
    const { sql, lists } = this.itemsIn(releases, 0);
    if (lists.length === 0) return [];
    return this.dataSource.query<LatestInCopy[]>(
      `SELECT l."copyId", l."at", p."name" AS "by" FROM (SELECT DISTINCT ON ("copyId") "copyId", "at", "authorId" FROM (${sql}) i ORDER BY "copyId", "at" DESC) l
         JOIN "author" p ON p."enrolmentId" = l."authorId"`,
      lists,
    );
  }

  /** How much each person wrote in each copy of these releases and when last, day by day since then and for all the time before it.
   * @param timeZone by which a day is a day; days are counted from 1970 on. */
  async writtenIn(releases: readonly Released[], timeZone: string, since: Date): Promise<readonly Written[]> {
    const { sql, lists } = this.itemsIn(releases, 2);
    if (lists.length === 0) return [];
    return this.dataSource.query<Written[]>(writtenSql(sql), [timeZone, since, ...lists]);
  }

  /** The same for some copies, item by item that is in them. */
  async writtenInCopies(
    accesses: readonly CopyAccess[],
    timeZone: string,
    since: Date,
  ): Promise<readonly Written[]> {
    const { sql, lists } = this.itemsOf(accesses);
    if (lists.length === 0) return [];
    return this.dataSource.query<Written[]>(writtenSql(sql), [timeZone, since, ...lists]);
  }

  /** One query over the kinds of these releases; their ids are parameters after the first `taken`. */
  private itemsIn(releases: readonly Released[], taken: number): { sql: string; lists: string[][] } {
    const lists: string[][] = [];
    const parts = [...groupedBy(releases, ({ activity }) => activity.kind)].map(([kind, own]) => {
      lists.push(own.map(({ release }) => release.id));
      const copies = `ARRAY(SELECT c."copyId" FROM "released_copy" c WHERE c."releaseId" = ANY($${taken + lists.length}))`;
      return `SELECT "copyId", "subjectId", "version", "authorId", "at" FROM (${this.kinds.of({ kind }).itemsSql(copies)}) AS "of_${lists.length}"`;
    });
    return { sql: parts.join(' UNION ALL '), lists };
  }

  /** Which of these have a version that the person has not seen. */
  async newOf(access: CopyAccess): Promise<ReadonlySet<string>> {
    const { sql, lists } = this.itemsOf([access]);
    const rows = await this.dataSource.query<{ id: string }[]>(
      `SELECT i."subjectId" AS "id" FROM (SELECT * FROM (${sql}) item WHERE ${visible}) i
         LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1 WHERE ${isNew}`,
      [access.viewer.enrolmentId, seesAll(access), ...lists],
    );
    return new Set(rows.map((row) => row.id));
  }

  /** Only what is in this copy and theirs to see can be marked; the rest of what is sent is passed over. */
  async see(person: SignedIn, copyId: CopyId, request: MarkSeen): Promise<SeenAnswer> {
    const access = await this.gate.enter(person, copyId);
    const { sql, lists } = this.itemsOf([access]);
    const items = request.what === 'items' ? JSON.stringify(request.items) : null;
    await this.dataSource.query(
      `WITH marked AS (INSERT INTO "seen" ("enrolmentId", "subjectId", "version", "at")
       SELECT $1, i."subjectId", LEAST(i."version", COALESCE((w."each"->>'version')::int, i."version")), $${lists.length + 3}
         FROM (SELECT * FROM (${sql}) item WHERE ${visible}) i
         LEFT JOIN LATERAL (SELECT "each" FROM jsonb_array_elements($${lists.length + 4}::jsonb) AS "each" WHERE "each"->>'id' = i."subjectId"::text LIMIT 1) w ON true
        WHERE ($${lists.length + 4}::jsonb IS NULL OR w."each" IS NOT NULL) AND i."authorId" <> $1
       ON CONFLICT ("enrolmentId", "subjectId") DO UPDATE SET "version" = GREATEST("seen"."version", excluded."version"), "at" = excluded."at"
       RETURNING 1)
       INSERT INTO "seen_count" ("enrolmentId", "count") SELECT $1, count(*) FROM marked HAVING count(*) > 0
       ON CONFLICT ("enrolmentId") DO UPDATE SET "count" = "seen_count"."count" + excluded."count"`,
      [access.viewer.enrolmentId, seesAll(access), ...lists, this.clock.now(), items],
    );
    return { unread: (await this.of([access]))(copyId).unread };
  }

  /** One query over all kinds concerned; parameters $1 and $2 are the viewer and whether they see all, $3 and on the lists of copies. */
  private itemsOf(
    accesses: readonly CopyAccess[],
    how: 'whole' | 'without excerpts' = 'whole',
  ): { sql: string; lists: string[][] } {
    const columns = `"copyId", "subjectId", "version", "authorId", "ownerId"${how === 'whole' ? ', "at", "excerpt"' : ''}`;
    const lists: string[][] = [];
    const ofKind = new Map<string, string[]>();
    for (const [name, own] of groupedBy(accesses, (access) => access.activity.kind))
      ofKind.set(
        name,
        own.map((access) => access.copy.id),
      );
    const parts: string[] = [];
    for (const kind of this.kinds.all) {
      const copyIds = ofKind.get(kind.name) ?? [];
      if (copyIds.length === 0) continue;
      lists.push(copyIds);
      parts.push(
        `SELECT ${columns} FROM (${kind.itemsSql(`$${lists.length + 2}::uuid[]`)}) AS "of_${parts.length}"`,
      );
    }
    return { sql: parts.join(' UNION ALL '), lists };
  }
}

const writtenSql = (items: string) =>
  `SELECT "copyId", "authorId", CASE WHEN "at" >= $2 THEN ("at" AT TIME ZONE $1)::date - DATE '1970-01-01' END AS "day", count(*)::int AS "count", max("at") AS "at"
     FROM (${items}) i GROUP BY 1, 2, 3`;
const visible = `("ownerId" IS NULL OR "ownerId" = $1 OR $2::boolean)`;
const isNew = `i."authorId" <> $1 AND i."version" > COALESCE(s."version", 0)`;
const seesAll = ({ viewer }: CopyAccess) => viewer.role !== 'student';
