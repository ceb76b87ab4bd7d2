import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type {
  BoardStudent,
  BoardView,
  MovesOf,
  PlaceRequest,
  PlaceResult,
  PlacesOf,
} from '@jigsaw/contract/placing';
import type { Viewer } from '@jigsaw/core/course';
import { inNameOrder } from '@jigsaw/core/course';
import { guardFormula } from '@jigsaw/core/files';
import { groupFileLines } from '@jigsaw/core/placing';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, only, sure } from '@jigsaw/core/lists';
import { attributesOf, courseOf, toldApart, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { GroupSetRow } from '../sets/index.js';
import { areGroupsOfSet, groupsOfSet, lockSet, setOf, setView } from '../sets/index.js';
import type { Credited } from './groupWork.js';
import { GroupWork } from './groupWork.js';
import { Memberships } from './memberships.js';
import { actsIn, latestAct } from './moves.js';
import { countStudentsToPlace } from './studentsToPlace.js';
import { unplacedSql } from './unplaced.js';

/** Acts of a set's history that are told at once. */
const actsAtOnce = 50;

/** How students get their group in one set. */
@Injectable()
export class BoardService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly memberships: Memberships,
    private readonly groupWork: GroupWork,
  ) {}

  async read(person: SignedIn, setId: GroupSetId): Promise<BoardView> {
    const board = await this.asWritten(person, setId);
    const { manager } = this.dataSource;
    const apart = await toldApart(manager, (await setOf(manager, setId)).courseId);
    return {
      ...board,
      students: board.students.map((student) => ({
        ...student,
        name: apart(student.enrolmentId, student.name),
      })),
    };
  }

  /** With names as they are written in the roster, two of one name among them. */
  private async asWritten(person: SignedIn, setId: GroupSetId): Promise<BoardView> {
    const set = await setOf(this.dataSource.manager, setId);
    const viewer = await this.viewers.staff(person, set.courseId, 'read-course');
    return this.boardFor(person, viewer, this.dataSource.manager, set);
  }

  /** The moves in this set, with who made them.
   * @param before only what was earlier; null: from now on back. */
  async moves(person: SignedIn, setId: GroupSetId, before: Date | null): Promise<MovesOf> {
    const { manager } = this.dataSource;
    const set = await setOf(manager, setId);
    await this.viewers.staff(person, set.courseId, 'read-course');
    const acts = await actsIn(manager, set, person.id, { before, since: null }, actsAtOnce + 1);
    const shown = acts.slice(0, actsAtOnce);
    return { acts: shown, before: acts.length > actsAtOnce ? sure(shown.at(-1)).at : null };
  }

  /** Carries out one act on the Board. If anybody was moved meanwhile, no one is moved and the Board as it is now comes back. */
  async place(
    person: SignedIn,
    setId: GroupSetId,
    { why, credit, ...place }: PlaceRequest,
  ): Promise<PlaceResult> {
    const found = await setOf(this.dataSource.manager, setId);
    const viewer = await this.viewers.staff(person, found.courseId, 'place');
    if (
      viewer.seesOnlyLed &&
      place.moves.some((move) => [move.from, move.to].some((id) => id !== null && !viewer.leads.includes(id)))
    )
      throw problems.notYours(
        'You place students in the groups that you lead. Ask the instructor for the others.',
      );
    return this.unitOfWork.run(async (work) => {
      const { manager } = work;
      const set = await lockSet(manager, setId);
      if (set.archivedAt)
        throw problems.conflict('This set is archived. Restore it before you place students.');
      const wanted = place.moves.flatMap((move) => move.to ?? []);
      if (!(await areGroupsOfSet(manager, wanted, setId))) throw problems.notFound();
      if (!set.hasLeaders && place.moves.some((move) => move.leads?.to))
        throw problems.conflict(
          'The groups of this set have no leaders. The set’s settings can give them some.',
        );
      const facts = { ...(why && { why }), ...(credit !== 'stays' && { credit }) };
      if (!(await this.memberships.place(work, { set, place, by: person, why: why || null, facts })))
        throw problems.staleWrite(
          await this.boardFor(person, viewer, manager, set),
          'Someone else moved one of these students first. No one was moved. The Board shows the current places.',
        );
      if (credit === 'joins') await this.groupWork.work.creditNewcomers(manager, place.moves);
      if (credit === 'taken-back') await this.groupWork.work.takeCreditsBack(manager, place.moves);
      const moved = place.moves.map((move) => move.student);
      return {
        unplaced: await countUnplaced(manager, set),
        toPlace: await countStudentsToPlace(manager, set.courseId, work.now),
        credited: await this.creditedIn(viewer, manager, set, moved),
      };
    });
  }

  /** Everyone with their groups in this set, as a file that the Board takes back: a line for each place. */
  async file(person: SignedIn, setId: GroupSetId): Promise<string> {
    const { set, groups, students } = await this.asWritten(person, setId);
    const lines = groupFileLines(set.name, groups, students);
    return `\ufeff${stringify(lines.map((cells) => cells.map(guardFormula)))}`;
  }

  /** Where someone has been in every set, who put them there and who took them out, and why. */
  async placesOf(person: SignedIn, courseId: CourseId, enrolmentId: EnrolmentId): Promise<PlacesOf> {
    await this.viewers.staff(person, courseId, 'read-course');
    const rows = await this.dataSource.query<
      (Omit<PlacesOf['places'][number], 'from' | 'until'> & { from: Date; until: Date | null })[]
    >(
      `SELECT g."setName" AS "set", g."number", g."name", m."from", m."until", p."name" AS "placedBy", q."name" AS "endedBy", m."why", m."endedWhy"
         FROM "membership" m JOIN "set_group" g ON g."groupId" = m."groupId"
         JOIN "account" p ON p."personId" = m."placedBy" LEFT JOIN "account" q ON q."personId" = m."endedBy"
        WHERE g."courseId" = $1 AND m."enrolmentId" = $2 ORDER BY m."from" DESC, m."id" DESC`,
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

  /** Anyone who sees the work of some groups only is told of no work in the others. */
  private async creditedIn(
    { seesOnlyLed, leads }: Viewer,
    manager: EntityManager,
    set: GroupSetRow,
    only: readonly EnrolmentId[] | null,
  ): Promise<Credited[]> {
    const credited = await this.groupWork.work.creditedIn(manager, set.id, only);
    return credited.filter(({ groupId }) => !seesOnlyLed || leads.includes(groupId));
  }

  private async boardFor(
    person: SignedIn,
    viewer: Viewer,
    manager: EntityManager,
    set: GroupSetRow,
  ): Promise<BoardView> {
    const groups = await groupsOfSet(manager, set.id);
    const shown = await this.creditedIn(viewer, manager, set, null);
    const students = await studentsIn(manager, set, shown);
    const { assistantsSee, attributeKinds } = await courseOf(manager, set.courseId);
    const unplaced = students.filter((student) => student.seats.length === 0).length;
    return {
      set: setView(set, groups.length, unplaced),
      groups,
      students,
      attributes: attributesOf(students, attributeKinds),
      staff: await staffOf(manager, set.courseId),
      assistantsSee,
      rules: set.rules,
      homes: set.homeSetId === null ? [] : await homesIn(manager, set.homeSetId),
      topics: set.topics,
      homeSet: set.homeSetId === null ? null : only(await setOf(manager, set.homeSetId), ['id', 'name']),
      latest: await latestAct(manager, set, person.id),
    };
  }
}

/** Everyone in the course with their seats in the set, in the order of their names. */
async function studentsIn(
  manager: EntityManager,
  set: GroupSetRow,
  credited: readonly Credited[],
): Promise<BoardStudent[]> {
  const people = await manager.query<Omit<BoardStudent, 'seats'>[]>(
    `SELECT "enrolmentId", "name", "familyName", "reading", "email", "number", "attributes"
       FROM "present_student" WHERE "courseId" = $1`,
    [set.courseId],
  );
  const seats = await manager.query<{ enrolmentId: EnrolmentId; groupId: GroupId; isLeader: boolean }[]>(
    `SELECT "enrolmentId", "groupId", "isLeader" FROM "membership"
      WHERE "setId" = $1 AND "until" IS NULL ORDER BY "from", "id"`,
    [set.id],
  );
  const handIns = new Map(credited.map((each) => [`${each.enrolmentId} ${each.groupId}`, each.handIns]));
  const seatsOf = groupedBy(seats, (seat) => seat.enrolmentId);
  return inNameOrder(people).map((person) => ({
    ...person,
    seats: (seatsOf.get(person.enrolmentId) ?? []).map(({ enrolmentId, groupId, isLeader }) => ({
      groupId,
      isLeader,
      handIns: handIns.get(`${enrolmentId} ${groupId}`) ?? 0,
    })),
  }));
}

const staffOf = (manager: EntityManager, courseId: CourseId) =>
  manager.query<BoardView['staff']>(
    `SELECT "enrolmentId", "name", "role" FROM "course_person"
      WHERE "courseId" = $1 AND "role" IN ('instructor', 'assistant') AND "leftAt" IS NULL ORDER BY "name"`,
    [courseId],
  );

const homesIn = (manager: EntityManager, homeSetId: GroupSetId) =>
  manager.query<BoardView['homes']>(
    `SELECT s."enrolmentId", g."number", g."name" FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId"
      WHERE s."setId" = $1 ORDER BY g."number"`,
    [homeSetId],
  );

async function countUnplaced(manager: EntityManager, { id, courseId }: GroupSetRow): Promise<number> {
  const [row] = await manager.query<{ unplaced: number }[]>(
    `SELECT ${unplacedSql('$1', '$2')} AS "unplaced"`,
    [id, courseId],
  );
  return sure(row).unplaced;
}
