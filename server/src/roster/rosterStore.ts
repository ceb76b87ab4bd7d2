import type { EntityManager } from 'typeorm';
import { sameAddress } from '@jigsaw/core/course';
import type { EnrolmentId, GroupId, CourseId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { EntryChange, Roster, RosterChange, RosterEntry } from '@jigsaw/core/roster';
import {
  enrol,
  giveToAccounts,
  enrolledElsewhere,
  knownHereAlone,
  leave,
  unenrol,
  updateEnrolments,
} from '../course/index.js';
import type { PeopleService } from '../identity/index.js';
import type { Memberships } from '../placing/index.js';
import { isStillReferredTo } from '../platform/databaseErrors.js';

/** The whole roster of a course, those who left included, in one query. */
export async function readEntries(manager: EntityManager, courseId: CourseId): Promise<Roster> {
  const rows = await manager.query<
    (Omit<RosterEntry, 'groups'> & { enrolmentId: EnrolmentId; groups: GroupId[] | null })[]
  >(
    `SELECT p."enrolmentId", p."email", p."name", p."familyName", p."reading", p."number", p."role", p."attributes",
            p."leftAt" IS NULL AS "isHere", p."joinedTo",
            (SELECT jsonb_agg(s."groupId" ORDER BY s."groupId") FROM "seat" s WHERE s."enrolmentId" = p."enrolmentId") AS "groups"
       FROM "course_person" p WHERE p."courseId" = $1`,
    [courseId],
  );
  return new Map(
    rows.map(({ enrolmentId, groups, ...entry }) => [enrolmentId, { ...entry, groups: groups ?? [] }]),
  );
}

interface Writing {
  readonly manager: EntityManager;
  readonly courseId: CourseId;
  readonly actorId: string;
  readonly now: Date;
  readonly people: PeopleService;
  readonly memberships: Memberships;
}

interface Kept {
  readonly enrolmentId: EnrolmentId;
  readonly entry: RosterEntry;
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
  await readdress(writing, change, before);
  const touched = [...new Set(change.map((each) => each.enrolmentId))];
  await updateEntries(
    writing,
    touched.flatMap((enrolmentId): Kept[] => {
      const entry = after.get(enrolmentId);
      return entry ? [{ enrolmentId, entry }] : [];
    }),
  );
  await writing.memberships.seatIn(
    writing,
    touched.map((enrolmentId) => ({ enrolmentId, groups: after.get(enrolmentId)?.groups ?? [] })),
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
    id: enrolmentId,
    courseId,
    personId: sure(personIdByAddress.get(sameAddress(entry.email))),
    role: entry.role,
    name: entry.name,
    familyName: entry.familyName,
    reading: entry.reading,
    number: entry.number,
    attributes: { ...entry.attributes },
  }));
  await enrol(manager, rows, now);
}

/** Another address is another account, unless the person has used theirs nowhere yet: then a mistyped one is put right. */
async function readdress(
  { manager, courseId, people }: Writing,
  change: RosterChange,
  before: Roster,
): Promise<void> {
  const moves = change.flatMap((each) =>
    each.kind === 'set' && each.to.email !== undefined
      ? [{ enrolmentId: each.enrolmentId, email: each.to.email, was: sure(before.get(each.enrolmentId)) }]
      : [],
  );
  if (moves.length === 0) return;
  const accounts = await people.accountsAt(manager, moves, (personIds) =>
    enrolledElsewhere(manager, personIds, courseId),
  );
  await giveToAccounts(
    manager,
    moves.map(({ enrolmentId, email }) => ({
      enrolmentId,
      personId: sure(accounts.get(sameAddress(email))),
    })),
  );
}

/** The course's own names. An account keeps its owner's; one that no one has used yet, and no other course knows, is called what this course says. */
async function updateEntries({ manager, now, people }: Writing, kept: readonly Kept[]): Promise<void> {
  if (kept.length === 0) return;
  await updateEnrolments(
    manager,
    kept.map(({ enrolmentId, entry }) => ({ enrolmentId, ...entry })),
    now,
  );
  await people.nameUnused(
    manager,
    await knownHereAlone(
      manager,
      kept.map((each) => each.enrolmentId),
    ),
  );
}

interface Removal {
  readonly enrolmentId: EnrolmentId;
  /** Where they were seated on joining, by the change that added them. */
  readonly groups: readonly GroupId[];
}

/** Those added by mistake go without a trace; anyone who has something hanging on them already leaves instead. */
async function removeOrEnd(writing: Writing, removals: readonly Removal[]): Promise<void> {
  if (removals.length === 0 || (await removeAll(writing, removals))) return;
  const [only] = removals;
  if (removals.length === 1) await leave(writing.manager, sure(only).enrolmentId, writing.now);
  else {
    // Halves, so that one person with work in a class of a thousand costs a few statements and not a thousand.
    const middle = removals.length >> 1;
    await removeOrEnd(writing, removals.slice(0, middle));
    await removeOrEnd(writing, removals.slice(middle));
  }
}

/** @returns false if something hangs on one of them; then none is removed. */
async function removeAll({ manager, memberships }: Writing, removals: readonly Removal[]): Promise<boolean> {
  await manager.query('SAVEPOINT "removal"');
  try {
    await memberships.forget(manager, removals);
    await unenrol(
      manager,
      removals.map((each) => each.enrolmentId),
    );
    return true;
  } catch (error) {
    if (!isStillReferredTo(error)) throw error;
    await manager.query('ROLLBACK TO SAVEPOINT "removal"');
    return false;
  } finally {
    // After any other failure the whole transaction goes, and its savepoint with it.
    await manager.query('RELEASE SAVEPOINT "removal"').catch(() => undefined);
  }
}

/** Whose own view of the course a change may alter: of a value that staff keep about someone, that person hears nothing. */
export const peopleTouched = (change: RosterChange): EnrolmentId[] =>
  change.flatMap((each) =>
    each.kind !== 'set' ||
    each.to.groups !== undefined ||
    each.to.role !== undefined ||
    each.to.isHere !== undefined
      ? [each.enrolmentId]
      : [],
  );

/** Everyone whose places a change touches: their groups' pages change with it. */
export const groupsTouched = (change: RosterChange): GroupId[] => [
  ...new Set(
    change.flatMap((each: EntryChange) =>
      each.kind === 'set' ? [...(each.from.groups ?? []), ...(each.to.groups ?? [])] : [...each.entry.groups],
    ),
  ),
];
