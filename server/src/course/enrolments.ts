import type { EntityManager } from 'typeorm';
import { In, IsNull, Not } from 'typeorm';
import type { Role } from '@jigsaw/core/course';
import type { EnrolmentId, CourseId, PersonId } from '@jigsaw/core/ids';
import type { OpenedLink } from '../identity/index.js';
import { CourseRow, EnrolmentRow } from './course.rows.js';

/** Rows of one statement, below PostgreSQL's limit on parameters. */
const rowsAtOnce = 1000;

export type NewEnrolment = Pick<
  EnrolmentRow,
  'id' | 'courseId' | 'personId' | 'role' | 'name' | 'familyName' | 'reading' | 'number' | 'attributes'
>;

/** An enrolment as it is to be; anyone who is not here keeps the moment at which they left. */
export interface EnrolmentState {
  readonly enrolmentId: EnrolmentId;
  readonly role: Role;
  readonly name: string;
  readonly familyName: string | null;
  readonly reading: string | null;
  readonly number: string | null;
  readonly attributes: Readonly<Record<string, string>>;
  readonly joinedTo: EnrolmentId | null;
  readonly isHere: boolean;
}

/** Acts on one course take turns from here to the end of the transaction. */
export const lockCourse = (manager: EntityManager, courseId: CourseId): Promise<CourseRow> =>
  manager.findOneOrFail(CourseRow, { where: { id: courseId }, lock: { mode: 'pessimistic_write' } });

export const courseOf = (manager: EntityManager, courseId: CourseId): Promise<CourseRow> =>
  manager.findOneByOrFail(CourseRow, { id: courseId });

/** Which course of the registrar's is followed, and when the class was last brought into step with it. */
export async function follow(
  manager: EntityManager,
  courseId: CourseId,
  code: string,
  at: Date,
): Promise<void> {
  await manager.update(CourseRow, courseId, { registrarCode: code, syncedAt: at });
}

export async function enrol(manager: EntityManager, rows: readonly NewEnrolment[], now: Date): Promise<void> {
  for (let at = 0; at < rows.length; at += rowsAtOnce)
    await manager.insert(
      EnrolmentRow,
      rows.slice(at, at + rowsAtOnce).map((row) => ({ ...row, joinedAt: now, leftAt: null })),
    );
}

export async function updateEnrolments(
  manager: EntityManager,
  states: readonly EnrolmentState[],
  now: Date,
): Promise<void> {
  await manager.query(
    `UPDATE "enrolment" e SET "role" = x."role", "name" = x."name", "familyName" = x."familyName", "reading" = x."reading", "number" = x."number", "attributes" = x."attributes",
            "joinedTo" = x."joinedTo", "leftAt" = CASE WHEN x."isHere" THEN NULL ELSE COALESCE(e."leftAt", $2) END
       FROM jsonb_to_recordset($1::jsonb) AS x("enrolmentId" uuid, "role" text, "name" text, "familyName" text, "reading" text, "number" text, "attributes" jsonb,
                                               "isHere" boolean, "joinedTo" uuid)
      WHERE e."id" = x."enrolmentId"`,
    [JSON.stringify(states), now],
  );
}

/** Lets the holder of the account in to the course of an entry.
 * @returns false if there is no such entry, or it is someone else's by now. */
export async function openTo(
  manager: EntityManager,
  { enrolmentId, personId }: OpenedLink,
): Promise<boolean> {
  const { affected } = await manager.update(
    EnrolmentRow,
    { id: enrolmentId, personId },
    { openedFor: personId },
  );
  return affected === 1;
}

/** The same places in the course, under other accounts, which are let in by links of their own. */
export async function giveToAccounts(
  manager: EntityManager,
  moves: readonly { readonly enrolmentId: EnrolmentId; readonly personId: PersonId }[],
): Promise<void> {
  await manager.query(
    `UPDATE "enrolment" e SET "personId" = x."personId"
       FROM jsonb_to_recordset($1::jsonb) AS x("enrolmentId" uuid, "personId" uuid) WHERE e."id" = x."enrolmentId"`,
    [JSON.stringify(moves)],
  );
}

export async function leave(manager: EntityManager, enrolmentId: EnrolmentId, at: Date): Promise<void> {
  await manager.update(EnrolmentRow, enrolmentId, { leftAt: at });
}

/** Without a trace; the database refuses it for anybody on which something hangs. */
export async function unenrol(manager: EntityManager, enrolmentIds: readonly EnrolmentId[]): Promise<void> {
  await manager.query(`DELETE FROM "enrolment" WHERE "id" = ANY($1)`, [enrolmentIds]);
}

/** Remembers who the registrar listed. */
export async function markListed(
  manager: EntityManager,
  courseId: CourseId,
  addressKeys: readonly string[],
  at: Date,
): Promise<void> {
  await manager.query(
    `UPDATE "enrolment" e SET "listedAt" = $3 FROM "account" a
      WHERE a."personId" = e."personId" AND e."courseId" = $1 AND a."addressKey" = ANY($2)`,
    [courseId, addressKeys, at],
  );
}

/** Those among these people whose account is in this one course and has never been used: it is called what the course calls them. */
export const knownHereAlone = (
  manager: EntityManager,
  enrolmentIds: readonly EnrolmentId[],
): Promise<Pick<EnrolmentRow, 'personId' | 'name' | 'familyName' | 'reading'>[]> =>
  manager.query(
    `SELECT p."personId", p."name", p."familyName", p."reading" FROM "course_person" p
      WHERE p."enrolmentId" = ANY($1) AND NOT p."hasPassword"
        AND NOT EXISTS (SELECT FROM "enrolment" o WHERE o."personId" = p."personId" AND o."courseId" <> p."courseId")`,
    [enrolmentIds],
  );

/** Those of these people who are in another course than this one, too. */
export async function enrolledElsewhere(
  manager: EntityManager,
  personIds: readonly PersonId[],
  courseId: CourseId,
): Promise<ReadonlySet<PersonId>> {
  const rows = await manager.query<{ personId: PersonId }[]>(
    `SELECT DISTINCT "personId" FROM "enrolment" WHERE "personId" = ANY($1) AND "courseId" <> $2`,
    [personIds, courseId],
  );
  return new Set(rows.map((row) => row.personId));
}

export const countStudents = (manager: EntityManager, courseId: CourseId): Promise<number> =>
  manager.countBy(EnrolmentRow, { courseId, role: 'student', leftAt: IsNull() });

/** Whether all of these, each once, are enrolled in the course, whatever became of them since. The practice student is no one of it. */
export async function areEnrolled(
  manager: EntityManager,
  courseId: CourseId,
  enrolmentIds: readonly EnrolmentId[],
): Promise<boolean> {
  const ids = [...new Set(enrolmentIds)];
  return (
    (await manager.countBy(EnrolmentRow, { id: In(ids), courseId, role: Not('practice') })) === ids.length
  );
}

/** Whether all of these teach in the course now. */
export async function areTeaching(
  manager: EntityManager,
  courseId: CourseId,
  enrolmentIds: readonly EnrolmentId[],
): Promise<boolean> {
  const ids = [...new Set(enrolmentIds)];
  const teaching = { id: In(ids), courseId, role: In(['instructor', 'assistant']), leftAt: IsNull() };
  return (await manager.countBy(EnrolmentRow, teaching)) === ids.length;
}
