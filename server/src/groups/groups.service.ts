import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, QueryFailedError } from 'typeorm';
import type {
  BoardGroup,
  BoardGroups,
  DressGroup,
  EditGroup,
  EditGroups,
  GroupDress,
  LeadGroups,
} from '@jigsaw/contract/sets';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { EnrolmentRow, NewGroups, Viewers } from '../roster/index.js';
import { GroupLeadRow, GroupRow, GroupSetRow, MembershipRow } from './groups.rows.js';
import { groupViews } from './setViews.js';

/** The groups of a set themselves: what they are called, what they hold, and who looks after them. */
@Injectable()
export class GroupsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly newGroups: NewGroups,
  ) {}

  async edit(person: SignedIn, groupId: GroupId, edit: EditGroup): Promise<BoardGroup> {
    const { set } = await this.find(groupId);
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.update(
        GroupRow,
        { id: groupId, version: edit.version },
        {
          name: edit.name,
          capacity: edit.capacity,
          ...(edit.isLocked !== undefined && { isLocked: edit.isLocked }),
          version: edit.version + 1,
        },
      );
      const group = await manager.findOneByOrFail(GroupRow, { id: groupId });
      const [view] = await groupViews(manager, [group]);
      if (affected === 0)
        throw problems.staleWrite(view, `This group was changed meanwhile: it is called ${group.name} now.`);
      await record({
        type: 'group.edited',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: groupId,
        facts: { version: group.version },
        groupIds: [groupId],
        isForStaff: true,
      });
      if (set.signUp)
        await record({
          type: 'places.changed',
          courseId: set.courseId,
          actorId: person.id,
          subjectId: set.id,
          isForAll: true,
        });
      return view!;
    });
  }

  /** Names, places and locks of many groups, new groups, and such as go. All of it is done, or none. */
  async editAll(person: SignedIn, setId: GroupSetId, { groups, removed }: EditGroups): Promise<BoardGroups> {
    const found = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!found) throw problems.notFound();
    const { enrolmentId } = await this.viewers.staff(person, found.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, {
        where: { id: setId },
        lock: { mode: 'pessimistic_write' },
      });
      const before = new Map((await manager.findBy(GroupRow, { setId })).map((group) => [group.id, group]));
      if ([...removed, ...groups.flatMap((group) => group.id ?? [])].some((id) => !before.has(id)))
        throw problems.notFound();
      const kept = groups.flatMap((group) =>
        group.id === null ? [] : [{ ...group, id: group.id as string, was: before.get(group.id)! }],
      );
      const stale = kept.find(({ was, version }) => was.version !== version);
      if (stale)
        throw problems.staleWrite(
          await this.viewsOf(manager, setId),
          `${stale.was.name} was changed meanwhile. Nothing was saved; what you wrote is kept here.`,
        );

      await remove(
        manager,
        removed.map((id) => before.get(id)!),
      );
      const changed = kept.filter(
        ({ was, ...is }) =>
          was.name !== is.name || was.capacity !== is.capacity || was.isLocked !== is.isLocked,
      );
      await manager.query(
        `UPDATE "course_group" g SET "name" = x."name", "capacity" = x."capacity", "isLocked" = x."isLocked", "version" = g."version" + 1
           FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "name" text, "capacity" int, "isLocked" boolean) WHERE g."id" = x."id"`,
        [JSON.stringify(changed)],
      );
      const last = Math.max(0, ...[...before.values()].map((group) => group.number)); // numbers of those just removed are not given out again
      const added = groups.filter((group) => group.id === null);
      const rows = added.map(({ name, capacity, isLocked }, at) => ({
        id: newId(),
        setId,
        number: last + at + 1,
        name,
        capacity,
        isLocked,
        version: 1,
      }));
      if (rows.length > 0) {
        await manager.insert(GroupRow, rows);
        await this.newGroups.tell({ manager, now, setId, by: enrolmentId });
      }
      const groupIds = [...changed.map((group) => group.id), ...rows.map((row) => row.id), ...removed];
      await record({
        type: 'group.edited',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { changed: changed.length, added: rows.length, removed: removed.length },
        groupIds,
        isForStaff: true,
      });
      if (set.signUp)
        await record({
          type: 'places.changed',
          courseId: set.courseId,
          actorId: person.id,
          subjectId: set.id,
          isForAll: true,
        });
      return { groups: await this.viewsOf(manager, setId) };
    });
  }

  /** From now on these of the staff look after each of these groups, and nobody else does. */
  async lead(person: SignedIn, setId: GroupSetId, { leads }: LeadGroups): Promise<BoardGroups> {
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    if (!set) throw problems.notFound();
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const groupIds = [...new Set(leads.map((each) => each.groupId))];
      const staffIds = [...new Set(leads.flatMap((each) => each.enrolmentIds))];
      const staff = {
        id: In(staffIds),
        courseId: set.courseId,
        role: In(['instructor', 'assistant']),
        leftAt: IsNull(),
      };
      if ((await manager.countBy(GroupRow, { id: In(groupIds), setId })) !== groupIds.length)
        throw problems.notFound();
      if ((await manager.countBy(EnrolmentRow, staff)) !== staffIds.length) throw problems.notFound();
      const rows = leads.flatMap(({ groupId, enrolmentIds }) =>
        enrolmentIds.map((enrolmentId) => ({ groupId, enrolmentId, since: now, namedBy: person.id })),
      );
      await manager.query(
        `DELETE FROM "group_lead" l WHERE l."groupId" = ANY($1) AND NOT EXISTS
           (SELECT 1 FROM jsonb_to_recordset($2::jsonb) AS x("groupId" uuid, "enrolmentId" uuid) WHERE x."groupId" = l."groupId" AND x."enrolmentId" = l."enrolmentId")`,
        [groupIds, JSON.stringify(rows)],
      );
      if (rows.length > 0)
        await manager.createQueryBuilder().insert().into(GroupLeadRow).values(rows).orIgnore().execute();
      await record({
        type: 'group.edited',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { leads },
        groupIds,
        isForStaff: true,
      });
      return { groups: await this.viewsOf(manager, setId) };
    });
  }

  /** What members make of their own group, where the set lets them. For everybody else there is nothing here. */
  async dress(person: SignedIn, groupId: GroupId, { name, motto, version }: DressGroup): Promise<GroupDress> {
    const { set, group: found } = await this.find(groupId);
    const viewer = await this.viewers.enter(person, set.courseId);
    const isTheirs = viewer.role === 'student' && viewer.groups.some((own) => own.groupId === groupId);
    if (!isTheirs || !set.membersDress || set.putAwayAt !== null) throw problems.notFound();
    if (found.isLocked || set.frozenAt !== null)
      throw problems.conflict(
        'Your instructor has fixed the groups, their names too. Ask them if yours needs another.',
      );
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.update(
        GroupRow,
        { id: groupId, version },
        { name, motto, version: version + 1 },
      );
      const group = await manager.findOneByOrFail(GroupRow, { id: groupId });
      const view = { id: groupId, name: group.name, motto: group.motto, version: group.version };
      if (affected === 0)
        throw problems.staleWrite(
          view,
          `Somebody of your group changed it meanwhile: it is called ${group.name} now.`,
        );
      await record({
        type: 'group.edited',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: groupId,
        facts: { name, motto },
        groupIds: [groupId],
        isForStaff: true,
      });
      if (set.signUp)
        await record({
          type: 'places.changed',
          courseId: set.courseId,
          actorId: person.id,
          subjectId: set.id,
          isForAll: true,
        });
      return view;
    });
  }

  private async find(groupId: GroupId): Promise<{ group: GroupRow; set: GroupSetRow }> {
    const group = await this.dataSource.getRepository(GroupRow).findOneBy({ id: groupId });
    const set = group && (await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: group.setId }));
    if (!group || !set) throw problems.notFound();
    return { group, set };
  }

  private async viewsOf(manager: EntityManager, setId: string): Promise<BoardGroup[]> {
    return groupViews(manager, await manager.find(GroupRow, { where: { setId }, order: { number: 'ASC' } }));
  }
}

/** Groups that nobody was ever in and nothing hangs on go without a trace.
 * @throws conflict that names the first that has to stay. */
async function remove(manager: EntityManager, groups: readonly GroupRow[]): Promise<void> {
  const foreignKeyHolds = '23503';
  for (const { id, name } of groups) {
    const members = await manager.countBy(MembershipRow, { groupId: id, until: IsNull() });
    if (members > 0)
      throw problems.conflict(
        `${members} ${members === 1 ? 'student is' : 'students are'} in ${name}. Take them out first; nothing was changed.`,
      );
    try {
      await manager.query(`DELETE FROM "group_lead" WHERE "groupId" = $1`, [id]);
      await manager.query(
        `DELETE FROM "copy" c WHERE c."groupId" = $1 AND NOT EXISTS (SELECT 1 FROM "membership" WHERE "groupId" = $1)`,
        [id],
      );
      await manager.query(`DELETE FROM "course_group" WHERE "id" = $1`, [id]);
    } catch (error) {
      if (
        !(error instanceof QueryFailedError) ||
        (error.driverError as { code?: string }).code !== foreignKeyHolds
      )
        throw error;
      throw problems.conflict(
        `People were in ${name} or worked for it, so it stays. Lock it, and nobody comes into it; nothing was changed.`,
      );
    }
  }
}
