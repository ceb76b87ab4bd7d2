import type { EntityManager } from 'typeorm';
import { QueryFailedError } from 'typeorm';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import type { EntryChange, Roster, RosterChange, RosterEntry } from '@jigsaw/core/roster';
import { sameAddress } from '@jigsaw/core/course';
import type { PeopleService } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { EnrolmentRow } from './roster.rows.js';

/** The whole roster of a course, those who left included, in one query. */
export async function readEntries(manager: EntityManager, courseId: string): Promise<Roster> {
  const rows = await manager.query<(RosterEntry & { enrolmentId: EnrolmentId; groups: GroupId[] | null })[]>(
    `SELECT e."id" AS "enrolmentId", p."email", p."name", p."familyName", p."reading", e."number", e."role", e."attributes", e."leftAt" IS NULL AS "isHere", e."joinedTo",
            (SELECT jsonb_agg(m."groupId" ORDER BY m."groupId") FROM "membership" m WHERE m."enrolmentId" = e."id" AND m."until" IS NULL) AS "groups"
       FROM "enrolment" e JOIN "person" p ON p."id" = e."personId" WHERE e."courseId" = $1`,
    [courseId],
  );
  return new Map(
    rows.map(({ enrolmentId, groups, ...entry }) => [enrolmentId, { ...entry, groups: groups ?? [] }]),
  );
}

interface Writing {
  readonly manager: EntityManager;
  readonly courseId: string;
  readonly actorId: string;
  readonly now: Date;
  readonly people: PeopleService;
}

/** Writes what a change makes of the roster. The caller holds the course and has checked the change against `before`; the same few
 * statements for one person and for a class. */
export async function writeChange(
  writing: Writing,
  change: RosterChange,
  before: Roster,
  after: Roster,
): Promise<void> {
  await addPeople(writing, change, before);
  const kept = [...new Set(change.map((each) => each.enrolmentId))].flatMap((enrolmentId) => {
    const entry = after.get(enrolmentId);
    return entry ? [{ enrolmentId, entry }] : [];
  });
  await readdress(writing, change, before);
  await updateEntries(writing, kept);
  await seat(
    writing,
    change.map((each) => ({
      enrolmentId: each.enrolmentId,
      groups: after.get(each.enrolmentId)?.groups ?? [],
    })),
  );
  await removeOrEnd(
    writing,
    change.flatMap((each) =>
      each.kind === 'remove' ? [{ enrolmentId: each.enrolmentId, groups: each.entry.groups }] : [],
    ),
  );
}

async function addPeople(
  { manager, courseId, now, people }: Writing,
  change: RosterChange,
  before: Roster,
): Promise<void> {
  const added = change.flatMap((each) =>
    each.kind === 'add' && !before.has(each.enrolmentId) ? [each] : [],
  );
  if (added.length === 0) return;
  const personIdByAddress = await people.accountsFor(
    manager,
    added.map((each) => each.entry),
  );
  const rows = added.map(({ enrolmentId, entry }) => ({
    id: enrolmentId as string,
    courseId,
    personId: personIdByAddress.get(sameAddress(entry.email))!,
    role: entry.role,
    number: entry.number,
    attributes: { ...entry.attributes },
    joinedAt: now,
    leftAt: null,
  }));
  for (let at = 0; at < rows.length; at += 1000)
    await manager.insert(EnrolmentRow, rows.slice(at, at + 1000));
}

/** Another address is another account, unless the person has used theirs nowhere yet: then a mistyped one is put right. */
async function readdress(
  { manager, courseId, people }: Writing,
  change: RosterChange,
  before: Roster,
): Promise<void> {
  for (const each of change) {
    if (each.kind !== 'set' || each.to.email === undefined) continue;
    const personId = await people.accountAt(manager, each.to.email, before.get(each.enrolmentId)!, courseId);
    await manager.update(EnrolmentRow, each.enrolmentId, { personId });
  }
}

async function updateEntries(
  { manager, now }: Writing,
  kept: readonly { enrolmentId: EnrolmentId; entry: RosterEntry }[],
): Promise<void> {
  if (kept.length === 0) return;
  const rows = JSON.stringify(kept.map(({ enrolmentId, entry }) => ({ id: enrolmentId, ...entry })));
  await manager.query(
    `UPDATE "enrolment" e SET "role" = x."role", "number" = x."number", "attributes" = x."attributes",
            "joinedTo" = x."joinedTo", "leftAt" = CASE WHEN x."isHere" THEN NULL ELSE COALESCE(e."leftAt", $2) END
       FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "role" text, "number" text, "attributes" jsonb, "isHere" boolean, "joinedTo" uuid) WHERE e."id" = x."id"`,
    [rows, now],
  );
  await manager.query(
    `UPDATE "person" p SET "name" = x."name", "familyName" = x."familyName", "reading" = x."reading"
       FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "name" text, "familyName" text, "reading" text) JOIN "enrolment" e ON e."id" = x."id"
      WHERE p."id" = e."personId" AND (p."name", p."familyName", p."reading") IS DISTINCT FROM (x."name", x."familyName", x."reading")`,
    [rows],
  );
}

/** Ends the memberships that are no longer wanted and begins those that are. */
async function seat(
  { manager, actorId, now }: Writing,
  seats: readonly { enrolmentId: EnrolmentId; groups: readonly GroupId[] }[],
): Promise<void> {
  const wanted = JSON.stringify(
    seats.flatMap(({ enrolmentId, groups }) =>
      groups.map((groupId) => ({ id: newId(), enrolmentId, groupId })),
    ),
  );
  const shape = `jsonb_to_recordset($1::jsonb) AS x("id" uuid, "enrolmentId" uuid, "groupId" uuid)`;
  await manager.query(
    `UPDATE "membership" m SET "until" = $2, "endedBy" = $3
      WHERE m."enrolmentId" = ANY($4) AND m."until" IS NULL
        AND NOT EXISTS (SELECT 1 FROM ${shape} WHERE x."enrolmentId" = m."enrolmentId" AND x."groupId" = m."groupId")`,
    [wanted, now, actorId, seats.map((each) => each.enrolmentId)],
  );
  await manager.query(
    `INSERT INTO "membership" ("id", "setId", "groupId", "enrolmentId", "isExclusive", "from", "placedBy")
     SELECT x."id", g."setId", g."id", x."enrolmentId", s."isExclusive", $2, $3
       FROM ${shape} JOIN "course_group" g ON g."id" = x."groupId" JOIN "group_set" s ON s."id" = g."setId"
      WHERE NOT EXISTS (SELECT 1 FROM "membership" m WHERE m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId" AND m."until" IS NULL)`,
    [wanted, now, actorId],
  );
}

interface Removal {
  readonly enrolmentId: EnrolmentId;
  /** Where they were seated on joining, by the change that added them. */
  readonly groups: readonly GroupId[];
}

/** Those added by mistake go without a trace; whoever has something hanging on them already leaves instead. */
async function removeOrEnd(writing: Writing, removals: readonly Removal[]): Promise<void> {
  if (removals.length === 0 || (await removeAll(writing, removals))) return;
  const [only] = removals;
  if (removals.length === 1)
    await writing.manager.update(EnrolmentRow, only!.enrolmentId, { leftAt: writing.now });
  else {
    // Halves, so that one person with work in a class of a thousand costs a few statements and not a thousand.
    const middle = removals.length >> 1;
    await removeOrEnd(writing, removals.slice(0, middle));
    await removeOrEnd(writing, removals.slice(middle));
  }
}

/** @returns false if something hangs on one of them; then none is removed. */
async function removeAll({ manager }: Writing, removals: readonly Removal[]): Promise<boolean> {
  const foreignKeyHolds = '23503';
  await manager.query('SAVEPOINT "removal"');
  try {
    await manager.query(
      `DELETE FROM "membership" m USING jsonb_to_recordset($1::jsonb) AS x("enrolmentId" uuid, "groupId" uuid)
        WHERE m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId"`,
      [
        JSON.stringify(
          removals.flatMap(({ enrolmentId, groups }) => groups.map((groupId) => ({ enrolmentId, groupId }))),
        ),
      ],
    );
    await manager.query(`DELETE FROM "enrolment" WHERE "id" = ANY($1)`, [
      removals.map((each) => each.enrolmentId),
    ]);
    return true;
  } catch (error) {
    if (
      !(error instanceof QueryFailedError) ||
      (error.driverError as { code?: string }).code !== foreignKeyHolds
    )
      throw error;
    await manager.query('ROLLBACK TO SAVEPOINT "removal"');
    return false;
  } finally {
    // After any other failure the whole transaction goes, and its savepoint with it.
    await manager.query('RELEASE SAVEPOINT "removal"').catch(() => undefined);
  }
}

/** Everyone whose places a change touches: their groups' pages change with it. */
/** Whose own view of the course a change may alter: of a value that staff keep about somebody, that person hears nothing. */
export const peopleTouched = (change: RosterChange): string[] =>
  change.flatMap((each) =>
    each.kind !== 'set' ||
    each.to.groups !== undefined ||
    each.to.role !== undefined ||
    each.to.isHere !== undefined
      ? [each.enrolmentId]
      : [],
  );

export const groupsTouched = (change: RosterChange): string[] => [
  ...new Set(
    change.flatMap((each: EntryChange) =>
      each.kind === 'set' ? [...(each.from.groups ?? []), ...(each.to.groups ?? [])] : [...each.entry.groups],
    ),
  ),
];
