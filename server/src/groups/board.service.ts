import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { BoardStudent, BoardView, PlacesOf, PlaceRequest, PlaceResult } from '@jigsaw/contract/placing';
import type { Placement, Seat } from '@jigsaw/core/placing';
import { apply } from '@jigsaw/core/placing';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { Viewer } from '@jigsaw/core/course';
import { guardFormula } from '@jigsaw/core/files';
import { sortName } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { attributesOf, chosenKinds, CourseRow, Viewers } from '../roster/index.js';
import { creditNewcomers, takeCreditsBack } from './credits.js';
import { GroupRow, GroupSetRow } from './groups.rows.js';
import { groupViews, setView } from './setViews.js';

/** Who sits where in one set. */
@Injectable()
export class BoardService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
  ) {}

  async read(person: SignedIn, setId: GroupSetId): Promise<BoardView> {
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!set) throw problems.notFound();
    const viewer = await this.viewers.staff(person, set.courseId, 'read-course');
    return boardFor(viewer, await boardOf(this.dataSource.manager, set));
  }

  /** Carries out one act on the Board. If anybody was moved meanwhile, nobody is moved and the Board as it is now comes back. */
  async place(
    person: SignedIn,
    setId: GroupSetId,
    { why, credit, ...place }: PlaceRequest,
  ): Promise<PlaceResult> {
    const found = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!found) throw problems.notFound();
    const viewer = await this.viewers.staff(person, found.courseId, 'place');
    if (
      viewer.seesOnlyLed &&
      place.moves.some((move) => [move.from, move.to].some((id) => id !== null && !viewer.leads.includes(id)))
    )
      throw problems.notYours(
        'You place students in the groups that you look after. Ask the instructor for the others.',
      );
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, {
        where: { id: setId },
        lock: { mode: 'pessimistic_write' },
      }); // acts on one set take turns
      const groups = await manager.findBy(GroupRow, { setId });
      const known = new Set(groups.map((group) => group.id));
      if (place.moves.some((move) => move.to !== null && !known.has(move.to))) throw problems.notFound();
      if (!set.hasLeaders && place.moves.some((move) => move.leads?.to))
        throw problems.conflict(
          'The groups of this set have no leaders. The set’s settings can give them some.',
        );

      const placement = await placementOf(manager, set);
      const placed = apply(placement, place, set.isExclusive);
      if (!placed.ok)
        throw problems.staleWrite(
          boardFor(viewer, await boardOf(manager, set)),
          'Someone else moved one of these students first. Nobody was moved; the Board shows how it is now.',
        );

      const students = new Set(place.moves.map((move) => move.student));
      await writeSeats(manager, {
        set,
        before: placement,
        after: placed.placement,
        students,
        by: person.id,
        now,
        why: why || null,
      });
      if (credit === 'joins') await creditNewcomers(manager, place.moves);
      if (credit === 'taken-back') await takeCreditsBack(manager, place.moves);
      const touched = [
        ...new Set(place.moves.flatMap((move) => [move.from, move.to]).filter((id) => id !== null)),
      ];
      await record({
        type: 'students.placed',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { moves: place.moves, ...(why && { why }), ...(credit !== 'stays' && { credit }) },
        groupIds: touched,
        enrolmentIds: place.moves.map((move) => move.student),
        isForStaff: true,
      });
      if (set.signUp)
        await record({
          type: 'places.changed',
          courseId: set.courseId,
          actorId: person.id,
          subjectId: setId,
          isForAll: true,
        });
      return { unplaced: [...placed.placement.values()].filter((seats) => seats.length === 0).length };
    });
  }

  /** Everybody with their groups in this set, as a file that the Board takes back: a line for each place. */
  async file(person: SignedIn, setId: GroupSetId): Promise<string> {
    const { set, groups, students } = await this.read(person, setId);
    const groupOf = new Map(groups.map((group) => [group.id, group]));
    const rows = students.flatMap((student) => {
      const who = [student.number ?? '', student.name, student.email];
      if (student.seats.length === 0) return [['', '', ...who]];
      return student.seats.map((seat) => [
        String(groupOf.get(seat.groupId)!.number),
        groupOf.get(seat.groupId)!.name,
        ...who,
      ]);
    });
    const byGroup = rows.toSorted((a, b) => (Number(a[0]) || Infinity) - (Number(b[0]) || Infinity));
    const lines = [[`Group number in ${set.name}`, 'Group', 'Number', 'Name', 'E-mail'], ...byGroup];
    return `\ufeff${stringify(lines.map((cells) => cells.map(guardFormula)))}`;
  }

  /** Where somebody has been in every set, who put them there and who took them out, and why. */
  async placesOf(person: SignedIn, courseId: CourseId, enrolmentId: EnrolmentId): Promise<PlacesOf> {
    await this.viewers.staff(person, courseId, 'read-course');
    const rows = await this.dataSource.query<
      (Omit<PlacesOf['places'][number], 'from' | 'until'> & { from: Date; until: Date | null })[]
    >(
      `SELECT s."name" AS "set", g."number", g."name", m."from", m."until", p."name" AS "placedBy", q."name" AS "endedBy", m."why", m."endedWhy"
         FROM "membership" m JOIN "course_group" g ON g."id" = m."groupId" JOIN "group_set" s ON s."id" = g."setId"
         JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = m."placedBy" LEFT JOIN "person" q ON q."id" = m."endedBy"
        WHERE e."courseId" = $1 AND e."id" = $2 ORDER BY m."from" DESC, m."id" DESC`,
      [courseId, enrolmentId],
    );
    return {
      places: rows.map((row) => ({
        ...row,
        from: row.from.toISOString(),
        until: row.until?.toISOString() ?? null,
      })),
    };
  }
}

/** Whoever sees the work of some groups only is told of no work in the others. */
function boardFor({ seesOnlyLed, leads }: Viewer, board: BoardView): BoardView {
  if (!seesOnlyLed) return board;
  const seatsOf = ({ seats }: BoardStudent) =>
    seats.map((seat) => (leads.includes(seat.groupId) ? seat : { ...seat, handIns: 0 }));
  return { ...board, students: board.students.map((student) => ({ ...student, seats: seatsOf(student) })) };
}

interface Writing {
  readonly set: GroupSetRow;
  readonly before: Placement;
  readonly after: Placement;
  readonly students: ReadonlySet<EnrolmentId>;
  readonly by: string;
  readonly now: Date;
  readonly why: string | null;
}

/** Ends the places that are given up, begins the new ones, and turns the leading of those that stay; three statements for any number. */
async function writeSeats(
  manager: EntityManager,
  { set, before, after, students, by, now, why }: Writing,
): Promise<void> {
  const ended: { enrolmentId: string; groupId: string }[] = [];
  const turned: { enrolmentId: string; groupId: string; isLeader: boolean }[] = [];
  const begun: { id: string; enrolmentId: string; groupId: string; isLeader: boolean }[] = [];
  for (const enrolmentId of students) {
    const [was, is] = [before.get(enrolmentId)!, after.get(enrolmentId)!];
    const at = (seats: readonly Seat[], groupId: string) => seats.find((seat) => seat.groupId === groupId);
    ended.push(
      ...was.filter((seat) => !at(is, seat.groupId)).map(({ groupId }) => ({ enrolmentId, groupId })),
    );
    begun.push(
      ...is.filter((seat) => !at(was, seat.groupId)).map((seat) => ({ id: newId(), enrolmentId, ...seat })),
    );
    turned.push(
      ...is
        .filter((seat) => at(was, seat.groupId) && at(was, seat.groupId)!.isLeader !== seat.isLeader)
        .map((seat) => ({ enrolmentId, ...seat })),
    );
  }
  const own = `m."setId" = $1 AND m."until" IS NULL AND m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId"`;
  await manager.query(
    `UPDATE "membership" m SET "until" = $3, "endedBy" = $4, "endedWhy" = $5
       FROM jsonb_to_recordset($2::jsonb) AS x("enrolmentId" uuid, "groupId" uuid) WHERE ${own}`,
    [set.id, JSON.stringify(ended), now, by, why],
  );
  // Whoever leads no longer goes first, since a group has one leader at every moment.
  for (const isLeader of [false, true]) {
    await manager.query(
      `UPDATE "membership" m SET "isLeader" = $3 FROM jsonb_to_recordset($2::jsonb) AS x("enrolmentId" uuid, "groupId" uuid) WHERE ${own}`,
      [set.id, JSON.stringify(turned.filter((seat) => seat.isLeader === isLeader)), isLeader],
    );
  }
  await manager.query(
    `INSERT INTO "membership" ("id", "setId", "groupId", "enrolmentId", "isExclusive", "isLeader", "from", "placedBy", "why")
     SELECT x."id", $1, x."groupId", x."enrolmentId", $3, x."isLeader", $4, $5, $6
       FROM jsonb_to_recordset($2::jsonb) AS x("id" uuid, "groupId" uuid, "enrolmentId" uuid, "isLeader" boolean)`,
    [set.id, JSON.stringify(begun), set.isExclusive, now, by, why],
  );
}

async function boardOf(manager: EntityManager, set: GroupSetRow): Promise<BoardView> {
  const groups = await manager.find(GroupRow, { where: { setId: set.id }, order: { number: 'ASC' } });
  const people = await manager.query<Omit<BoardStudent, 'seats'>[]>(
    `SELECT e."id" AS "enrolmentId", p."name", p."familyName", p."reading", p."email", e."number", e."attributes"
       FROM "enrolment" e JOIN "person" p ON p."id" = e."personId" WHERE e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL`,
    [set.courseId],
  );
  const seats = await seatsIn(manager, set.id);
  const byName = new Intl.Collator('en', { sensitivity: 'base' });
  const students = people
    .map((person) => ({ ...person, seats: seats.get(person.enrolmentId) ?? [] }))
    .sort((a, b) => byName.compare(sortName(a), sortName(b)) || byName.compare(a.name, b.name));
  const staff = await manager.query<BoardView['staff']>(
    `SELECT e."id" AS "enrolmentId", p."name", e."role" FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"
      WHERE e."courseId" = $1 AND e."role" IN ('instructor', 'assistant') AND e."leftAt" IS NULL ORDER BY p."name"`,
    [set.courseId],
  );
  const { assistantsSee } = await manager.findOneByOrFail(CourseRow, { id: set.courseId });
  return {
    set: setView(set, groups.length, students.filter((student) => student.seats.length === 0).length),
    groups: await groupViews(manager, groups),
    students,
    attributes: attributesOf(students, await chosenKinds(manager, set.courseId)),
    staff,
    assistantsSee,
    rules: set.rules,
    homes: set.homeSetId === null ? [] : await homesIn(manager, set.homeSetId),
  };
}

const homesIn = (manager: EntityManager, homeSetId: string) =>
  manager.query<BoardView['homes']>(
    `SELECT m."enrolmentId", g."number", g."name" FROM "membership" m JOIN "course_group" g ON g."id" = m."groupId"
      WHERE m."setId" = $1 AND m."until" IS NULL ORDER BY g."number"`,
    [homeSetId],
  );

/** The places of everybody in a set, with the hand-ins of each group that they are credited with; two queries. */
async function seatsIn(
  manager: EntityManager,
  setId: string,
): Promise<ReadonlyMap<EnrolmentId, BoardStudent['seats']>> {
  const seats = await manager.query<{ enrolmentId: EnrolmentId; groupId: GroupId; isLeader: boolean }[]>(
    `SELECT "enrolmentId", "groupId", "isLeader" FROM "membership" WHERE "setId" = $1 AND "until" IS NULL ORDER BY "from", "id"`,
    [setId],
  );
  const credits = await manager.query<{ enrolmentId: EnrolmentId; groupId: GroupId; handIns: number }[]>(
    `SELECT k."enrolmentId", c."groupId", count(*)::int AS "handIns"
       FROM "course_group" g JOIN "copy" c ON c."groupId" = g."id" JOIN "hand_in" h ON h."copyId" = c."id" JOIN "credit" k ON k."handInId" = h."id"
      WHERE g."setId" = $1 GROUP BY k."enrolmentId", c."groupId"`,
    [setId],
  );
  const handInsOf = new Map(credits.map((each) => [`${each.enrolmentId} ${each.groupId}`, each.handIns]));
  const byStudent = new Map<EnrolmentId, BoardStudent['seats']>();
  for (const { enrolmentId, groupId, isLeader } of seats) {
    const seat = { groupId, isLeader, handIns: handInsOf.get(`${enrolmentId} ${groupId}`) ?? 0 };
    byStudent.set(enrolmentId, [...(byStudent.get(enrolmentId) ?? []), seat]);
  }
  return byStudent;
}

async function placementOf(manager: EntityManager, set: GroupSetRow): Promise<Placement> {
  const rows = await manager.query<{ id: EnrolmentId; seats: Seat[] | null }[]>(
    `SELECT e."id", (SELECT jsonb_agg(jsonb_build_object('groupId', m."groupId", 'isLeader', m."isLeader"))
                       FROM "membership" m WHERE m."enrolmentId" = e."id" AND m."setId" = $2 AND m."until" IS NULL) AS "seats"
       FROM "enrolment" e WHERE e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL`,
    [set.courseId, set.id],
  );
  return new Map(rows.map((row) => [row.id, row.seats ?? []]));
}
