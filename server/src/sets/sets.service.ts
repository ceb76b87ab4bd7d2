import type { Concerns } from '@jigsaw/core/release';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, Not } from 'typeorm';
import type { CourseSettings } from '@jigsaw/contract/course';
import type {
  DealRule,
  GroupSetList,
  GroupSetView,
  SetOrder,
  SetRules,
  SetSettings,
} from '@jigsaw/contract/sets';
import type { CourseId, GroupSetId } from '@jigsaw/core/ids';
import { areEnrolled, countStudents, courseOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { lockSet, setOf } from './lookups.js';
import { SetHearers } from './setHearers.js';
import { refuseSignUp } from './setMaking.js';
import { GroupSetRow } from './sets.rows.js';
import { SetViews } from './setViews.js';

/** Besides staff anyone who is in a group of it; where students choose, before or after, everyone who may choose. */
const concernedBy = (
  { id, signUp }: Pick<GroupSetRow, 'id' | 'signUp'>,
  next: Pick<GroupSetRow, 'signUp'> = { signUp },
): Partial<Concerns> => ({ setIds: [id], isForAll: signUp !== null || next.signUp !== null });

/** Group sets as a whole: changed, frozen, archived, ordered. */
@Injectable()
export class SetsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly views: SetViews,
    private readonly hearers: SetHearers,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<GroupSetList> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const archived = await manager.find(GroupSetRow, {
      where: { courseId, archivedAt: Not(IsNull()) },
      order: { archivedAt: 'DESC' },
    });
    return {
      sets: await this.views.all(manager, courseId),
      archived: archived.map((set) => ({ id: set.id, name: set.name })),
      students: await countStudents(manager, courseId),
    };
  }

  /** What holds in the whole course. How many groups each of the staff leads says what they would still see of the work if they saw only that. */
  async courseSettings(person: SignedIn, courseId: CourseId): Promise<CourseSettings> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const { code, title, term, timeZone, version, assistantsSee } = await courseOf(manager, courseId);
    const [{ groups }] = await manager.query<[{ groups: number }]>(
      `SELECT count(*)::int AS "groups" FROM "set_group" WHERE "courseId" = $1 AND "setArchivedAt" IS NULL`,
      [courseId],
    );
    const staff = await manager.query<CourseSettings['staff']>(
      `SELECT p."enrolmentId", p."name", p."role", count(g."groupId")::int AS "leads"
         FROM "course_person" p LEFT JOIN "group_lead" l ON l."enrolmentId" = p."enrolmentId"
         LEFT JOIN "set_group" g ON g."groupId" = l."groupId" AND g."setArchivedAt" IS NULL
        WHERE p."courseId" = $1 AND p."role" IN ('instructor', 'assistant') AND p."leftAt" IS NULL
        GROUP BY 1, 2, 3 ORDER BY p."role" DESC, p."name"`,
      [courseId],
    );
    return { code, title, term, timeZone, version, assistantsSee, groups, staff };
  }

  /** @throws stale-write with the set as it is, if someone changed it meanwhile. */
  async change(
    person: SignedIn,
    setId: GroupSetId,
    { version, ...settings }: SetSettings,
  ): Promise<GroupSetView> {
    const { courseId, isFormedAtHandIn } = await this.staffSet(person, setId);
    refuseSignUp({ ...settings, isFormedAtHandIn });
    return this.unitOfWork.run(async ({ manager, record }) => {
      const before = await lockSet(manager, setId);
      if (before.version !== version) {
        const set = await this.views.one(manager, courseId, setId);
        throw problems.staleWrite(
          set,
          `This set was changed meanwhile: it is called ${set.name} now. Yours is kept here; compare the two.`,
        );
      }
      await this.hearers.setChanging({ manager, set: before, next: settings });
      await manager.update(GroupSetRow, setId, { ...settings, version: version + 1 });
      await record({
        type: 'set.changed',
        courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { version: version + 1 },
        ...concernedBy(before, settings),
      });
      return this.views.one(manager, courseId, setId);
    });
  }

  /** What its deals are to bring about.
   * @throws stale-write with the set as it is, if someone changed it meanwhile. */
  async changeRules(
    person: SignedIn,
    setId: GroupSetId,
    { rules, version }: SetRules,
  ): Promise<GroupSetView> {
    const { courseId } = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, record }) => {
      const set = await lockSet(manager, setId);
      if (set.version !== version)
        throw problems.staleWrite(
          await this.views.one(manager, courseId, setId),
          'Someone changed this set meanwhile. Your change is not saved. Look at the set again.',
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
      return this.views.one(manager, courseId, setId);
    });
  }

  /** Rules name students and sets of their own course. */
  private async refuseStrangers(
    manager: EntityManager,
    courseId: CourseId,
    rules: readonly DealRule[],
  ): Promise<void> {
    const students = [...new Set(rules.flatMap((rule) => ('students' in rule ? rule.students : [])))];
    const sets = [...new Set(rules.flatMap((rule) => ('setIds' in rule ? rule.setIds : [])))];
    if (!(await areEnrolled(manager, courseId, students))) throw problems.notFound();
    if ((await manager.countBy(GroupSetRow, { id: In(sets), courseId })) !== sets.length)
      throw problems.notFound();
  }

  /** Students stay where they are; staff still place them. */
  async freeze(person: SignedIn, setId: GroupSetId, isFrozen: boolean): Promise<GroupSetView> {
    const { courseId } = await this.staffSet(person, setId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await lockSet(manager, setId);
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
          ...concernedBy(set),
        });
      }
      return this.views.one(manager, courseId, setId);
    });
  }

  /** Its rooms, work and marks stay; it is out of the way of everything that places people. */
  async archive(person: SignedIn, setId: GroupSetId, isArchived: boolean): Promise<GroupSetView> {
    const set = await this.staffSet(person, setId);
    const { courseId } = set;
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.update(GroupSetRow, setId, { archivedAt: isArchived ? now : null });
      await record({
        type: 'set.changed',
        courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { isArchived },
        ...concernedBy(set),
      });
      return this.views.one(manager, courseId, setId);
    });
  }

  async order(person: SignedIn, courseId: CourseId, { setIds }: SetOrder): Promise<GroupSetList> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    await this.unitOfWork.run(async ({ manager, record }) => {
      const shown = await this.views.all(manager, courseId);
      if (shown.length !== setIds.length || shown.some((set) => !setIds.includes(set.id)))
        throw problems.conflict(
          'The sets of this course changed meanwhile. Look at them again. Nothing was changed.',
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

  private async staffSet(person: SignedIn, setId: GroupSetId): Promise<GroupSetRow> {
    const set = await setOf(this.dataSource.manager, setId);
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return set;
  }
}
