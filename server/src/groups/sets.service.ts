import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, Not } from 'typeorm';
import type { z } from 'zod';
import type { CopySet, CreateGroupSet, DeriveExperts, MadeGroupSet } from '@jigsaw/contract/setUp';
import type {
  DealRule,
  GroupSetList,
  GroupSetView,
  SetOrder,
  SetRules,
  SetSettings,
} from '@jigsaw/contract/sets';
import type { Home } from '@jigsaw/core/dealing';
import { expertTables, tableName } from '@jigsaw/core/dealing';
import { namesFor, sizesByCount, sizesBySize } from '@jigsaw/core/sets';
import type { CourseId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { EnrolmentRow, NewSets, Viewers } from '../roster/index.js';
import { GroupRow, GroupSetRow, MembershipRow } from './groups.rows.js';
import { countStudents, setView, setViews, viewOfSet } from './setViews.js';

/** Group sets as a whole: made, changed, frozen, put away, copied. */
@Injectable()
export class SetsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly newSets: NewSets,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<GroupSetList> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const putAway = await manager.find(GroupSetRow, {
      where: { courseId, putAwayAt: Not(IsNull()) },
      order: { putAwayAt: 'DESC' },
    });
    return {
      sets: await setViews(manager, courseId),
      putAway: putAway.map((set) => ({ id: set.id as GroupSetId, name: set.name })),
      students: await countStudents(manager, courseId),
    };
  }

  async create(
    person: SignedIn,
    courseId: CourseId,
    { activities, ...draft }: z.output<typeof CreateGroupSet>,
  ): Promise<MadeGroupSet> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    refuseSignUp({ ...draft, isFormedAtHandIn: draft.shape.by === 'hand-in' });
    return this.unitOfWork.run(async (work) => {
      const { manager, now, record } = work;
      const students = await countStudents(manager, courseId);
      const setId = newId<'group-set'>();
      await manager.insert(GroupSetRow, {
        id: setId,
        courseId,
        name: draft.name,
        position: await manager.countBy(GroupSetRow, { courseId }),
        capacity: draft.capacity,
        pattern: draft.pattern || 'Group {n}',
        isExclusive: draft.isExclusive,
        isFormedAtHandIn: draft.shape.by === 'hand-in',
        signUp: draft.signUp,
        createdAt: now,
      });
      const names = namesFor(groupCount(draft.shape, students), draft.pattern, draft.names);
      const groups = names.map((name, at) => ({
        id: newId(),
        setId,
        number: at + 1,
        name,
        capacity: null,
        version: 1,
      }));
      if (groups.length > 0) await manager.insert(GroupRow, groups);
      await record({
        type: 'set.created',
        courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { groups: names.length },
      });
      const made = await this.newSets.equip({ work, person, courseId, setId, activities });
      return {
        ...setView(await manager.findOneByOrFail(GroupSetRow, { id: setId }), names.length, students),
        activities: made,
      };
    });
  }

  /** @throws stale-write with the set as it is, if somebody changed it meanwhile. */
  async change(
    person: SignedIn,
    setId: GroupSetId,
    { version, ...settings }: SetSettings,
  ): Promise<GroupSetView> {
    const { courseId, isFormedAtHandIn } = await this.staffSet(person, setId);
    refuseSignUp({ ...settings, isFormedAtHandIn });
    return this.unitOfWork.run(async ({ manager, record }) => {
      const before = await manager.findOneOrFail(GroupSetRow, {
        where: { id: setId },
        lock: { mode: 'pessimistic_write' },
      });
      if (before.version !== version) {
        const set = await viewOfSet(manager, courseId, setId);
        throw problems.staleWrite(
          set,
          `This set was changed meanwhile: it is called ${set.name} now. Yours is kept here; compare the two.`,
        );
      }
      if (before.isExclusive !== settings.isExclusive) await seatOnce(manager, setId, settings.isExclusive);
      if (!settings.hasLeaders)
        await manager.update(MembershipRow, { setId, isLeader: true, until: IsNull() }, { isLeader: false });
      await manager.update(GroupSetRow, setId, { ...settings, version: version + 1 });
      await record({
        type: 'set.changed',
        courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { version: version + 1 },
        isForAll: true,
      });
      return viewOfSet(manager, courseId, setId);
    });
  }

  /** What its deals are to bring about.
   * @throws stale-write with the set as it is, if somebody changed it meanwhile. */
  async changeRules(
    person: SignedIn,
    setId: GroupSetId,
    { rules, version }: SetRules,
  ): Promise<GroupSetView> {
    const { courseId } = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, {
        where: { id: setId },
        lock: { mode: 'pessimistic_write' },
      });
      if (set.version !== version)
        throw problems.staleWrite(
          await viewOfSet(manager, courseId, setId),
          'Somebody changed this set meanwhile. Yours is not saved; look at the set once more.',
        );
      await this.refuseStrangers(manager, courseId, rules);
      await manager.update(GroupSetRow, setId, { rules, version: version + 1 });
      await record({
        type: 'set.changed',
        courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { rules: rules.length },
      });
      return viewOfSet(manager, courseId, setId);
    });
  }

  /** Rules name students and sets of their own course. */
  private async refuseStrangers(
    manager: EntityManager,
    courseId: string,
    rules: readonly DealRule[],
  ): Promise<void> {
    const students = [...new Set(rules.flatMap((rule) => ('students' in rule ? rule.students : [])))];
    const sets = [...new Set(rules.flatMap((rule) => ('setIds' in rule ? rule.setIds : [])))];
    if ((await manager.countBy(EnrolmentRow, { id: In(students), courseId })) !== students.length)
      throw problems.notFound();
    if ((await manager.countBy(GroupSetRow, { id: In(sets), courseId })) !== sets.length)
      throw problems.notFound();
  }

  /** Students stay where they are; staff still place them. */
  async freeze(person: SignedIn, setId: GroupSetId, isFrozen: boolean): Promise<GroupSetView> {
    const { courseId } = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, {
        where: { id: setId },
        lock: { mode: 'pessimistic_write' },
      });
      if ((set.frozenAt !== null) !== isFrozen) {
        await manager.update(GroupSetRow, setId, {
          frozenAt: isFrozen ? now : null,
          version: set.version + 1,
        });
        await record({
          type: 'set.changed',
          courseId,
          actorId: person.id,
          subjectId: setId,
          facts: { isFrozen },
          isForAll: true,
        });
      }
      return viewOfSet(manager, courseId, setId);
    });
  }

  /** Its rooms, work and marks stay; it is out of the way of everything that places people. */
  async putAway(person: SignedIn, setId: GroupSetId, isPutAway: boolean): Promise<GroupSetView> {
    const { courseId } = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.update(GroupSetRow, setId, { putAwayAt: isPutAway ? now : null });
      await record({
        type: 'set.changed',
        courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { isPutAway },
        isForAll: true,
      });
      return viewOfSet(manager, courseId, setId);
    });
  }

  async order(person: SignedIn, courseId: CourseId, { setIds }: SetOrder): Promise<GroupSetList> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    await this.unitOfWork.run(async ({ manager, record }) => {
      const shown = await setViews(manager, courseId);
      if (shown.length !== setIds.length || shown.some((set) => !setIds.includes(set.id)))
        throw problems.conflict(
          'The sets of this course changed meanwhile. Look at them once more; they stand as before.',
        );
      for (const [position, id] of setIds.entries()) await manager.update(GroupSetRow, id, { position });
      await record({
        type: 'set.changed',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { order: setIds },
      });
    });
    return this.list(person, courseId);
  }

  /** Groups, places and settings once more; with everybody in the same group, or empty. */
  async copy(
    person: SignedIn,
    setId: GroupSetId,
    { name, withMembers, activities }: z.output<typeof CopySet>,
  ): Promise<MadeGroupSet> {
    const found = await this.staffSet(person, setId);
    const { courseId } = found;
    return this.unitOfWork.run(async (work) => {
      const { manager, now, record } = work;
      const id = newId<'group-set'>();
      const position = await manager.countBy(GroupSetRow, { courseId });
      const {
        capacity,
        pattern,
        rules,
        isExclusive,
        hasLeaders,
        membersDress,
        isFormedAtHandIn,
        description,
        isDescriptionShown,
        latecomers,
      } = found;
      const shared = {
        capacity,
        pattern,
        rules,
        isExclusive,
        hasLeaders,
        membersDress,
        isFormedAtHandIn,
        description,
        isDescriptionShown,
        latecomers,
      };
      await manager.insert(GroupSetRow, { id, courseId, name, position, createdAt: now, ...shared });
      const groups = await manager.find(GroupRow, { where: { setId }, order: { number: 'ASC' } });
      const copies = groups.map((group) => ({
        id: newId(),
        setId: id,
        number: group.number,
        name: group.name,
        motto: group.motto,
        capacity: group.capacity,
        version: 1,
      }));
      if (copies.length > 0) await manager.insert(GroupRow, copies);
      if (withMembers) {
        const idOf = new Map(groups.map((group, at) => [group.id, copies[at]!.id]));
        const seats = await manager.findBy(MembershipRow, { setId, until: IsNull() });
        const rows = seats.map(({ groupId, enrolmentId, isLeader }) => ({
          id: newId(),
          setId: id,
          groupId: idOf.get(groupId)!,
          enrolmentId,
          isExclusive,
          isLeader,
          from: now,
          until: null,
          placedBy: person.id,
          endedBy: null,
        }));
        if (rows.length > 0) await manager.insert(MembershipRow, rows);
      }
      await record({
        type: 'set.created',
        courseId,
        actorId: person.id,
        subjectId: id,
        facts: { copyOf: setId, withMembers },
      });
      const made = await this.newSets.equip({
        work,
        person,
        courseId: courseId as CourseId,
        setId: id,
        activities,
      });
      return { ...(await viewOfSet(manager, courseId, id)), activities: made };
    });
  }

  /** Expert tables of the groups of this set (CALC §4), with everybody at theirs. */
  async deriveExperts(
    person: SignedIn,
    setId: GroupSetId,
    { name, topics, most, seed, activities }: z.output<typeof DeriveExperts>,
  ): Promise<MadeGroupSet> {
    const { courseId } = await this.staffSet(person, setId);
    return this.unitOfWork.run(async (work) => {
      const { manager, now, record } = work;
      const homes = await manager.query<Home[]>(
        `SELECT g."name", ARRAY(SELECT m."enrolmentId" FROM "membership" m WHERE m."groupId" = g."id" AND m."until" IS NULL ORDER BY m."enrolmentId") AS "members"
           FROM "course_group" g WHERE g."setId" = $1 ORDER BY g."number"`,
        [setId],
      );
      const { tables } = expertTables({ homes, topics, most, seed });
      const id = newId<'group-set'>();
      const position = await manager.countBy(GroupSetRow, { courseId });
      await manager.insert(GroupSetRow, {
        id,
        courseId,
        name,
        position,
        pattern: 'Table {n}',
        capacity: null,
        isExclusive: true,
        homeSetId: setId,
        createdAt: now,
      });
      const groups = tables.map((table, at) => ({
        id: newId(),
        setId: id,
        number: at + 1,
        name: tableName(table),
        capacity: null,
        version: 1,
      }));
      await manager.insert(GroupRow, groups);
      const seats = tables.flatMap((table, at) =>
        table.members.map((enrolmentId) => ({
          id: newId(),
          setId: id,
          groupId: groups[at]!.id,
          enrolmentId,
          isExclusive: true,
          from: now,
          until: null,
          placedBy: person.id,
          endedBy: null,
        })),
      );
      if (seats.length > 0) await manager.insert(MembershipRow, seats);
      await record({
        type: 'set.created',
        courseId,
        actorId: person.id,
        subjectId: id,
        facts: { expertsOf: setId, tables: tables.length },
      });
      const made = await this.newSets.equip({
        work,
        person,
        courseId: courseId as CourseId,
        setId: id,
        activities,
      });
      return { ...(await viewOfSet(manager, courseId, id)), activities: made };
    });
  }

  private async staffSet(person: SignedIn, setId: GroupSetId): Promise<GroupSetRow> {
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!set) throw problems.notFound();
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return set;
  }
}

/** Students choose one place each, of groups that are there. */
function refuseSignUp({
  signUp,
  isExclusive,
  isFormedAtHandIn,
}: {
  signUp: object | null;
  isExclusive: boolean;
  isFormedAtHandIn: boolean;
}): void {
  if (signUp && !isExclusive)
    throw problems.invalidInput(
      'Students choose one place each. Let nobody be in several groups, or let nobody choose.',
    );
  if (signUp && isFormedAtHandIn)
    throw problems.invalidInput(
      'These groups come to be when students hand in; there is nothing to choose before.',
    );
}

function groupCount(shape: z.output<typeof CreateGroupSet>['shape'], students: number): number {
  if (shape.by === 'hand-in') return 0;
  const forecast =
    shape.by === 'count'
      ? sizesByCount(students, shape.groups)
      : sizesBySize(students, shape.size, shape.how);
  assert(forecast.ok, 'the contract lets only whole, positive shapes through');
  return forecast.sizes.length;
}

/** The rule stands on every place, so that the database holds it.
 * @throws conflict with names, if somebody has several places and is to have one. */
async function seatOnce(manager: EntityManager, setId: string, isExclusive: boolean): Promise<void> {
  if (isExclusive) {
    const several = await manager.query<{ name: string }[]>(
      `SELECT p."name" FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = e."personId"
        WHERE m."setId" = $1 AND m."until" IS NULL GROUP BY e."id", p."name" HAVING count(*) > 1 ORDER BY p."name"`,
      [setId],
    );
    const [first, second, ...more] = several.map((each) => each.name);
    if (first !== undefined) {
      const who =
        second === undefined
          ? first
          : more.length === 0
            ? `${first} and ${second}`
            : `${first}, ${second} and ${more.length} more`;
      throw problems.conflict(
        `${who} ${second === undefined ? 'is' : 'are'} in several groups. Take them out of all but one first.`,
      );
    }
  }
  await manager.update(MembershipRow, { setId, until: IsNull() }, { isExclusive });
}
