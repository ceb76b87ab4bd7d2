import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';

type Row = Readonly<Record<string, unknown>>;

interface Reference {
  readonly table: string;
  readonly column: string;
  readonly key: readonly string[];
  /** Unique indexes that hold the column: their other columns, and the rows that they speak of. */
  readonly unique: readonly { readonly others: readonly string[]; readonly where: string | null }[];
}

/** One row as it was and as it is, by its columns. */
export interface Rewritten {
  readonly table: string;
  readonly id: string;
  readonly before: Row;
  readonly after: Row;
}

/** What was done to make two entries' traces one person's; enough to part them again. */
export interface Traces {
  readonly keep: EnrolmentId;
  readonly other: EnrolmentId;
  readonly rewritten: readonly Rewritten[];
  /** Rows that the one who stays has already, such as the credit for the same hand-in. */
  readonly aside: readonly { readonly table: string; readonly rows: readonly Row[] }[];
  readonly moved: readonly {
    readonly table: string;
    readonly column: string;
    readonly keys: readonly Row[];
  }[];
}

/** How an area makes one of what both have there, before the rest moves over. It returns each row that it rewrote. */
export type JoinStep = (
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
) => Promise<readonly Rewritten[]>;

/** Moves everything that hangs on one entry to another. What hangs on it is read from the database's own catalogue, so that a table
 * that comes later is not forgotten. */
@Injectable()
export class Joining {
  private readonly steps: JoinStep[] = [];

  /** For areas in which two entries of one person may both have something that only one can have. */
  addStep(step: JoinStep): void {
    this.steps.push(step);
  }

  async join(manager: EntityManager, keep: EnrolmentId, other: EnrolmentId): Promise<Traces> {
    const rewritten: Rewritten[] = [];
    for (const step of this.steps) rewritten.push(...(await step(manager, keep, other)));
    const aside: { table: string; rows: Row[] }[] = [];
    const moved: { table: string; column: string; keys: Row[] }[] = [];
    for (const reference of await references(manager)) {
      const rows = await putAside(manager, reference, keep, other);
      if (rows.length > 0) aside.push({ table: reference.table, rows });
      const keys = await move(manager, reference, keep, other);
      if (keys.length > 0) moved.push({ table: reference.table, column: reference.column, keys });
    }
    return { keep, other, rewritten, aside, moved };
  }

  /** What was changed or removed since is left as it is now. */
  async part(manager: EntityManager, { keep, other, rewritten, aside, moved }: Traces): Promise<void> {
    for (const { table, column, keys } of moved) {
      await manager.query(
        `UPDATE ${name(table)} t SET ${name(column)} = $1 FROM jsonb_populate_recordset(NULL::${name(table)}, $3::jsonb) k
          WHERE t.${name(column)} = $2 AND ${Object.keys(sure(keys[0]))
            .map((each) => `t.${name(each)} = k.${name(each)}`)
            .join(' AND ')}`,
        [other, keep, JSON.stringify(keys)],
      );
    }
    for (const { table, rows } of aside) {
      const columns = await columnsKept(manager, table, sure(rows[0]));
      await manager.query(
        `INSERT INTO ${name(table)} (${columns}) SELECT ${columns} FROM jsonb_populate_recordset(NULL::${name(table)}, $1::jsonb)
         ON CONFLICT DO NOTHING`,
        [JSON.stringify(rows)],
      );
    }
    for (const { table, id, before, after } of rewritten.toReversed())
      await rewrite(manager, { table, id, before: after, after: before });
  }
}

/** Sets a row's columns, if they are as they were. */
export async function rewrite(
  manager: EntityManager,
  { table, id, before, after }: Rewritten,
): Promise<void> {
  const columns = await columnsKept(manager, table, after);
  if (columns === '') return;
  await manager.query(
    `WITH b AS (SELECT ${columns} FROM jsonb_populate_record(NULL::${name(table)}, $2::jsonb)),
          a AS (SELECT ${columns} FROM jsonb_populate_record(NULL::${name(table)}, $3::jsonb))
     UPDATE ${name(table)} t SET (${columns}) = (SELECT ${columns} FROM a)
      WHERE t."id" = $1 AND (SELECT ROW(b.*) FROM b) IS NOT DISTINCT FROM (SELECT ROW(now.*) FROM (
        SELECT ${columns} FROM ${name(table)} WHERE "id" = $1) now)`,
    [id, JSON.stringify(before), JSON.stringify(after)],
  );
}

/** Of the columns that a row was kept with, those that its table still has: a later migration may have taken some away, and what it added
 * begins as the table says. */
async function columnsKept(manager: EntityManager, table: string, row: Row): Promise<string> {
  const found = await manager.query<{ column: string }[]>(
    `SELECT attname AS "column" FROM pg_attribute
      WHERE attrelid = $1::regclass AND attnum > 0 AND NOT attisdropped AND attname = ANY($2) ORDER BY attnum`,
    [name(table), Object.keys(row)],
  );
  return found.map(({ column }) => name(column)).join(', ');
}

/** Names come from the catalogue or from code, never from a request; quoted all the same. */
const name = (identifier: string): string => `"${identifier.replaceAll('"', '""')}"`;

/** Every column that refers to an entry, the entry itself apart. */
async function references(manager: EntityManager): Promise<Reference[]> {
  return manager.query<Reference[]>(
    `SELECT t.relname AS "table", a.attname AS "column",
            (SELECT jsonb_agg(k.attname) FROM pg_index i JOIN pg_attribute k ON k.attrelid = i.indrelid AND k.attnum = ANY(i.indkey)
              WHERE i.indrelid = t.oid AND i.indisprimary) AS "key",
            coalesce((SELECT jsonb_agg(jsonb_build_object(
                       'others', (SELECT coalesce(jsonb_agg(o.attname), '[]') FROM pg_attribute o
                                   WHERE o.attrelid = i.indrelid AND o.attnum = ANY(i.indkey) AND o.attnum <> a.attnum),
                       'where', pg_get_expr(i.indpred, i.indrelid)))
                       FROM pg_index i WHERE i.indrelid = t.oid AND i.indisunique AND a.attnum = ANY(i.indkey)), '[]') AS "unique"
       FROM pg_constraint c JOIN pg_class t ON t.oid = c.conrelid JOIN pg_attribute a ON a.attrelid = t.oid AND a.attnum = c.conkey[1]
      WHERE c.contype = 'f' AND c.confrelid = '"enrolment"'::regclass AND t.relname <> 'enrolment' ORDER BY 1, 2`,
  );
}

async function putAside(
  manager: EntityManager,
  { table, column, unique }: Reference,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<Row[]> {
  const rows: Row[] = [];
  for (const { others, where } of unique) {
    const cells = others.map(name).join(', ');
    const alsoKeeps = others.length === 0 ? 'EXISTS (SELECT 1' : `(${cells}) IN (SELECT ${cells}`;
    const condition = where === null ? '' : ` AND (${where})`;
    // An UPDATE or DELETE answers with its rows and their number.
    const [gone] = await manager.query<[{ row: Row }[], number]>(
      `DELETE FROM ${name(table)} WHERE ${name(column)} = $1${condition} AND ${alsoKeeps} FROM ${name(table)} WHERE ${name(column)} = $2${condition})
       RETURNING to_jsonb(${name(table)}.*) AS "row"`,
      [other, keep],
    );
    rows.push(...gone.map(({ row }) => row));
  }
  return rows;
}

async function move(
  manager: EntityManager,
  { table, column, key }: Reference,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<Row[]> {
  const parts = key.map((each) => `'${each.replaceAll("'", "''")}', ${name(each)}`).join(', ');
  const [gone] = await manager.query<[{ key: Row }[], number]>(
    `UPDATE ${name(table)} SET ${name(column)} = $2 WHERE ${name(column)} = $1 RETURNING jsonb_build_object(${parts}) AS "key"`,
    [other, keep],
  );
  return gone.map((each) => each.key);
}
