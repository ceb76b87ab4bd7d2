import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, Not } from 'typeorm';
import type {
  BoardGroup,
  BoardStudent,
  BoardView,
  CopySet,
  CreateGroupSet,
  EditGroup,
  GroupSetList,
  GroupSetView,
  PlacesOf,
  PlaceRequest,
  PlaceResult,
  SetOrder,
  SetSettings,
} from '@jigsaw/contract/groups';
import type { z } from 'zod';
import type { Move, Placement } from '@jigsaw/core/groups';
import { apply, namesFor, sizesByCount, sizesBySize } from '@jigsaw/core/groups';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { guardFormula, sortName } from '@jigsaw/core/roster';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { attributesOf, chosenKinds, EnrolmentRow, Viewers } from '../roster/index.js';
import { GroupRow, GroupSetRow, MembershipRow } from './groups.rows.js';

@Injectable()
export class GroupsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<GroupSetList> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const putAway = await manager.find(GroupSetRow, { where: { courseId, putAwayAt: Not(IsNull()) }, order: { putAwayAt: 'DESC' } });
    return {
      sets: await this.setViews(manager, courseId),
      putAway: putAway.map((set) => ({ id: set.id as GroupSetId, name: set.name })),
      students: await countStudents(manager, courseId),
    };
  }

  async create(person: SignedIn, courseId: CourseId, draft: z.output<typeof CreateGroupSet>): Promise<GroupSetView> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const students = await countStudents(manager, courseId);
      const { shape } = draft;
      const forecast = shape.by === 'count' ? sizesByCount(students, shape.groups) : sizesBySize(students, shape.size, shape.how);
      assert(forecast.ok, 'the contract lets only whole, positive shapes through');
      const setId = newId<'group-set'>();
      const position = await manager.countBy(GroupSetRow, { courseId });
      await manager.insert(GroupSetRow, {
        id: setId,
        courseId,
        name: draft.name,
        position,
        capacity: draft.capacity,
        pattern: draft.pattern || 'Group {n}',
        isExclusive: true,
        signUp: draft.signUp,
        createdAt: now,
      });
      const names = namesFor(forecast.sizes.length, draft.pattern, draft.names);
      await manager.insert(
        GroupRow,
        names.map((name, at) => ({ id: newId(), setId, number: at + 1, name, capacity: null, version: 1 })),
      );
      await record({ type: 'set.created', courseId, actorId: person.id, subjectId: setId, facts: { groups: names.length } });
      return setView(await manager.findOneByOrFail(GroupSetRow, { id: setId }), names.length, students);
    });
  }

  async board(person: SignedIn, setId: GroupSetId): Promise<BoardView> {
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!set) throw problems.notFound();
    await this.viewers.staff(person, set.courseId, 'read-course');
    return this.boardOf(this.dataSource.manager, set);
  }

  /** Carries out one act on the Board. If anybody was moved meanwhile, nobody is moved and the Board as it is now comes back. */
  async place(person: SignedIn, setId: GroupSetId, request: PlaceRequest): Promise<PlaceResult> {
    const found = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!found) throw problems.notFound();
    await this.viewers.staff(person, found.courseId, 'place');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, { where: { id: setId }, lock: { mode: 'pessimistic_write' } }); // acts on one set take turns
      const groups = await manager.findBy(GroupRow, { setId });
      const known = new Set(groups.map((group) => group.id));
      if (request.moves.some((move) => move.to !== null && !known.has(move.to))) throw problems.notFound();

      const placement = await placementOf(manager, set);
      const placed = apply(placement, request);
      if (!placed.ok)
        throw problems.staleWrite(
          await this.boardOf(manager, set),
          'Someone else moved one of these students first. Nobody was moved; the Board shows how it is now.',
        );

      await this.write(manager, set, request.moves, person.id, now);
      const touched = [...new Set(request.moves.flatMap((move) => [move.from, move.to]).filter((id) => id !== null))];
      await record({
        type: 'students.placed',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { moves: request.moves },
        groupIds: touched,
      });
      if (set.signUp) await record({ type: 'places.changed', courseId: set.courseId, actorId: person.id, subjectId: setId, isForAll: true });
      return { unplaced: [...placed.placement.values()].filter((group) => group === null).length };
    });
  }

  /** @throws stale-write with the set as it is, if somebody changed it meanwhile. */
  async change(person: SignedIn, setId: GroupSetId, { version, ...settings }: SetSettings): Promise<GroupSetView> {
    const found = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.update(GroupSetRow, { id: setId, version }, { ...settings, version: version + 1 });
      const set = await this.viewOfSet(manager, found.courseId as CourseId, setId);
      if (affected === 0) throw problems.staleWrite(set, `This set was changed meanwhile: it is called ${set.name} now. Yours is kept here; compare the two.`);
      await record({ type: 'set.changed', courseId: found.courseId, actorId: person.id, subjectId: setId, facts: { version: set.version }, isForAll: true });
      return set;
    });
  }

  /** Students stay where they are; staff still place them. */
  async freeze(person: SignedIn, setId: GroupSetId, isFrozen: boolean): Promise<GroupSetView> {
    const found = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, { where: { id: setId }, lock: { mode: 'pessimistic_write' } });
      if ((set.frozenAt !== null) !== isFrozen) {
        await manager.update(GroupSetRow, setId, { frozenAt: isFrozen ? now : null, version: set.version + 1 });
        await record({ type: 'set.changed', courseId: found.courseId, actorId: person.id, subjectId: setId, facts: { isFrozen }, isForAll: true });
      }
      return this.viewOfSet(manager, found.courseId as CourseId, setId);
    });
  }

  /** Its rooms, work and marks stay; it is out of the way of everything that places people. */
  async putAway(person: SignedIn, setId: GroupSetId, isPutAway: boolean): Promise<GroupSetView> {
    const found = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.update(GroupSetRow, setId, { putAwayAt: isPutAway ? now : null });
      await record({ type: 'set.changed', courseId: found.courseId, actorId: person.id, subjectId: setId, facts: { isPutAway }, isForAll: true });
      return this.viewOfSet(manager, found.courseId as CourseId, setId);
    });
  }

  async order(person: SignedIn, courseId: CourseId, { setIds }: SetOrder): Promise<GroupSetList> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    await this.unitOfWork.run(async ({ manager, record }) => {
      const shown = await this.setViews(manager, courseId);
      if (shown.length !== setIds.length || shown.some((set) => !setIds.includes(set.id)))
        throw problems.conflict('The sets of this course changed meanwhile. Look at them once more; they stand as before.');
      for (const [position, id] of setIds.entries()) await manager.update(GroupSetRow, id, { position });
      await record({ type: 'set.changed', courseId, actorId: person.id, subjectId: courseId, facts: { order: setIds } });
    });
    return this.list(person, courseId);
  }

  private async staffSet(person: SignedIn, setId: GroupSetId): Promise<GroupSetRow> {
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!set) throw problems.notFound();
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return set;
  }

  private async viewOfSet(manager: EntityManager, courseId: CourseId, setId: GroupSetId): Promise<GroupSetView> {
    const set = (await this.setViews(manager, courseId, setId)).find((each) => each.id === setId);
    assert(set, 'a set of the course is among its sets');
    return set;
  }

  async edit(person: SignedIn, groupId: GroupId, edit: EditGroup): Promise<BoardGroup> {
    const found = await this.dataSource.getRepository(GroupRow).findOneBy({ id: groupId });
    const set = found && (await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: found.setId }));
    if (!found || !set) throw problems.notFound();
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.update(
        GroupRow,
        { id: groupId, version: edit.version },
        { name: edit.name, capacity: edit.capacity, ...(edit.isLocked !== undefined && { isLocked: edit.isLocked }), version: edit.version + 1 },
      );
      const now = await manager.findOneByOrFail(GroupRow, { id: groupId });
      if (affected === 0) throw problems.staleWrite(groupView(now), `This group was changed meanwhile: it is called ${now.name} now.`);
      await record({
        type: 'group.edited',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: groupId,
        facts: { version: now.version },
        groupIds: [groupId],
      });
      if (set.signUp) await record({ type: 'places.changed', courseId: set.courseId, actorId: person.id, subjectId: set.id, isForAll: true });
      return groupView(now);
    });
  }

  /** Groups, places and settings once more; with everybody in the same group, or empty. */
  async copy(person: SignedIn, setId: GroupSetId, { name, withMembers }: CopySet): Promise<GroupSetView> {
    const found = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const id = newId<'group-set'>();
      const position = await manager.countBy(GroupSetRow, { courseId: found.courseId });
      const { capacity, pattern, isExclusive, description, isDescriptionShown, latecomers } = found;
      const shared = { capacity, pattern, isExclusive, description, isDescriptionShown, latecomers };
      await manager.insert(GroupSetRow, { id, courseId: found.courseId, name, position, createdAt: now, ...shared });
      const groups = await manager.find(GroupRow, { where: { setId }, order: { number: 'ASC' } });
      const copies = groups.map((group) => ({ id: newId(), setId: id, number: group.number, name: group.name, capacity: group.capacity, version: 1 }));
      if (copies.length > 0) await manager.insert(GroupRow, copies);
      if (withMembers) {
        const idOf = new Map(groups.map((group, at) => [group.id, copies[at]!.id]));
        const seats = await manager.findBy(MembershipRow, { setId, until: IsNull() });
        const rows = seats.map(({ groupId, enrolmentId }) => ({
          id: newId(),
          setId: id,
          groupId: idOf.get(groupId)!,
          enrolmentId,
          isExclusive,
          from: now,
          until: null,
          placedBy: person.id,
          endedBy: null,
        }));
        if (rows.length > 0) await manager.insert(MembershipRow, rows);
      }
      await record({ type: 'set.created', courseId: found.courseId, actorId: person.id, subjectId: id, facts: { copyOf: setId, withMembers } });
      return this.viewOfSet(manager, found.courseId as CourseId, id);
    });
  }

  /** Everybody with their group in this set, as a file that the Board takes back. */
  async file(person: SignedIn, setId: GroupSetId): Promise<string> {
    const { set, groups, students } = await this.board(person, setId);
    const groupOf = new Map(groups.map((group) => [group.id, group]));
    const rows = students.map((student) => {
      const group = student.groupId && groupOf.get(student.groupId);
      return [group ? String(group.number) : '', group ? group.name : '', student.number ?? '', student.name, student.email];
    });
    const byGroup = rows.toSorted((a, b) => (Number(a[0]) || Infinity) - (Number(b[0]) || Infinity));
    const lines = [[`Group number in ${set.name}`, 'Group', 'Number', 'Name', 'E-mail'], ...byGroup];
    return `\ufeff${stringify(lines.map((cells) => cells.map(guardFormula)))}`;
  }

  /** Where somebody has been in every set, who put them there and who took them out. */
  async placesOf(person: SignedIn, courseId: CourseId, enrolmentId: EnrolmentId): Promise<PlacesOf> {
    await this.viewers.staff(person, courseId, 'read-course');
    const rows = await this.dataSource.query<(Omit<PlacesOf['places'][number], 'from' | 'until'> & { from: Date; until: Date | null })[]>(
      `SELECT s."name" AS "set", g."number", g."name", m."from", m."until", p."name" AS "placedBy", q."name" AS "endedBy"
         FROM "membership" m JOIN "course_group" g ON g."id" = m."groupId" JOIN "group_set" s ON s."id" = g."setId"
         JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = m."placedBy" LEFT JOIN "person" q ON q."id" = m."endedBy"
        WHERE e."courseId" = $1 AND e."id" = $2 ORDER BY m."from" DESC, m."id" DESC`,
      [courseId, enrolmentId],
    );
    return { places: rows.map((row) => ({ ...row, from: row.from.toISOString(), until: row.until?.toISOString() ?? null })) };
  }

  private async write(manager: EntityManager, set: GroupSetRow, moves: readonly Move[], actorId: string, now: Date): Promise<void> {
    const last = new Map(moves.map((move) => [move.student, move.to])); // a student moved twice in one act ends at the last place
    await manager.update(MembershipRow, { setId: set.id, enrolmentId: In([...last.keys()]), until: IsNull() }, { until: now, endedBy: actorId });
    const rows = [...last].flatMap(([enrolmentId, groupId]) =>
      groupId === null
        ? []
        : [{ id: newId(), setId: set.id, groupId, enrolmentId, isExclusive: set.isExclusive, from: now, until: null, placedBy: actorId, endedBy: null }],
    );
    if (rows.length > 0) await manager.insert(MembershipRow, rows);
  }

  private async boardOf(manager: EntityManager, set: GroupSetRow): Promise<BoardView> {
    const groups = await manager.find(GroupRow, { where: { setId: set.id }, order: { number: 'ASC' } });
    const students = await manager.query<BoardStudent[]>(
      `SELECT e."id" AS "enrolmentId", p."name", p."familyName", p."reading", p."email", e."number", e."attributes", m."groupId",
              (SELECT count(*)::int FROM "credit" k JOIN "hand_in" h ON h."id" = k."handInId" JOIN "copy" c ON c."id" = h."copyId"
                WHERE k."enrolmentId" = e."id" AND c."groupId" = m."groupId") AS "handIns"
         FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"
         LEFT JOIN "membership" m ON m."enrolmentId" = e."id" AND m."setId" = $2 AND m."until" IS NULL
        WHERE e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL`,
      [set.courseId, set.id],
    );
    const byName = new Intl.Collator('en', { sensitivity: 'base' });
    students.sort((a, b) => byName.compare(sortName(a), sortName(b)) || byName.compare(a.name, b.name));
    const unplaced = students.filter((student) => student.groupId === null).length;
    return {
      set: setView(set, groups.length, unplaced),
      groups: groups.map(groupView),
      students,
      attributes: attributesOf(students, await chosenKinds(manager, set.courseId)),
    };
  }

  /** @param also one that is shown even if it is put away. */
  private async setViews(manager: EntityManager, courseId: CourseId, also: GroupSetId | null = null): Promise<GroupSetView[]> {
    const rows = await manager.query<(GroupSetRow & { groupCount: number; unplaced: number })[]>(
      `SELECT s.*,
              (SELECT count(*)::int FROM "course_group" g WHERE g."setId" = s."id") AS "groupCount",
              (SELECT count(*)::int FROM "enrolment" e WHERE e."courseId" = s."courseId" AND e."role" = 'student' AND e."leftAt" IS NULL
                  AND NOT EXISTS (SELECT 1 FROM "membership" m WHERE m."setId" = s."id" AND m."enrolmentId" = e."id" AND m."until" IS NULL)) AS "unplaced"
         FROM "group_set" s WHERE s."courseId" = $1 AND (s."putAwayAt" IS NULL OR s."id" = $2) ORDER BY s."position", s."createdAt"`,
      [courseId, also],
    );
    return rows.map((row) => setView(row, row.groupCount, row.unplaced));
  }
}

const setView = (set: GroupSetRow, groupCount: number, unplaced: number): GroupSetView => ({
  id: set.id as GroupSetId,
  name: set.name,
  capacity: set.capacity,
  groupCount,
  unplaced,
  isSynchronised: set.isSynchronised,
  description: set.description,
  isDescriptionShown: set.isDescriptionShown,
  latecomers: set.latecomers,
  signUp: set.signUp,
  frozenAt: set.frozenAt?.toISOString() ?? null,
  version: set.version,
});

const groupView = (row: GroupRow): BoardGroup => ({
  id: row.id as GroupId,
  number: row.number,
  name: row.name,
  capacity: row.capacity,
  isLocked: row.isLocked,
  version: row.version,
});

const countStudents = (manager: EntityManager, courseId: string) => manager.countBy(EnrolmentRow, { courseId, role: 'student', leftAt: IsNull() });

async function placementOf(manager: EntityManager, set: GroupSetRow): Promise<Placement> {
  const rows = await manager.query<{ id: EnrolmentId; groupId: GroupId | null }[]>(
    `SELECT e."id", m."groupId" FROM "enrolment" e
       LEFT JOIN "membership" m ON m."enrolmentId" = e."id" AND m."setId" = $2 AND m."until" IS NULL
      WHERE e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL`,
    [set.courseId, set.id],
  );
  return new Map(rows.map((row) => [row.id, row.groupId]));
}
