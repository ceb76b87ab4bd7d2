import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type {
  BoardGroup,
  BoardGroups,
  NameGroup,
  EditGroup,
  EditGroups,
  GroupNaming,
  LeadGroups,
} from '@jigsaw/contract/sets';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { areTeaching, Viewers } from '../course/index.js';
import { areGroupsOfSet, lockSet, setOf } from './lookups.js';
import { SetHearers } from './setHearers.js';
import { SetMaking } from './setMaking.js';
import { removeGroup, tellOfGroups } from './groupChanges.js';
import { GroupLeadRow, GroupRow, GroupSetRow } from './sets.rows.js';
import { groupsOfSet, groupViews } from './setViews.js';

/** The groups of a set themselves: what they are called, what they hold, and who leads them. */
@Injectable()
export class GroupsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly making: SetMaking,
    private readonly hearers: SetHearers,
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
          ...(edit.details && { details: edit.details }),
          version: edit.version + 1,
        },
      );
      const group = await manager.findOneByOrFail(GroupRow, { id: groupId });
      const [view] = await groupViews(manager, [group]);
      if (affected === 0)
        throw problems.staleWrite(view, `This group was changed meanwhile: it is called ${group.name} now.`);
      await tellOfGroups(record, person, set, {
        subjectId: groupId,
        facts: { version: group.version },
        groupIds: [groupId],
      });
      return sure(view);
    });
  }

  /** Names, places and locks of many groups, new groups, and such as go. All of it is done, or none. */
  async editAll(
    person: SignedIn,
    setId: GroupSetId,
    { groups, removed, capacity }: EditGroups,
  ): Promise<BoardGroups> {
    const found = await setOf(this.dataSource.manager, setId);
    const { enrolmentId } = await this.viewers.staff(person, found.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await lockSet(manager, setId);
      const before = new Map((await manager.findBy(GroupRow, { setId })).map((group) => [group.id, group]));
      if ([...removed, ...groups.flatMap((group) => group.id ?? [])].some((id) => !before.has(id)))
        throw problems.notFound();
      const kept = groups.flatMap((group) =>
        group.id === null ? [] : [{ ...group, id: group.id, was: sure(before.get(group.id)) }],
      );
      const stale = kept.find(({ was, version }) => was.version !== version);
      if (stale)
        throw problems.staleWrite(
          await groupsOfSet(manager, setId),
          `${stale.was.name} was changed meanwhile. Nothing was saved; what you wrote is kept here.`,
        );

      if (capacity !== undefined && capacity !== set.capacity) {
        await manager.update(GroupSetRow, { id: setId }, { capacity, version: set.version + 1 });
        const { courseId } = set;
        await record({
          type: 'set.changed',
          courseId,
          actorId: person.id,
          subjectId: setId,
          facts: { capacity },
        });
      }
      for (const id of removed) await removeGroup(manager, this.hearers, sure(before.get(id)));
      const changed = kept.filter(
        ({ was, ...is }) =>
          was.name !== is.name ||
          was.capacity !== is.capacity ||
          was.isLocked !== is.isLocked ||
          (is.details !== undefined && !isDeepStrictEqual(was.details, is.details)),
      );
      await manager.query(
        `UPDATE "course_group" g SET "name" = x."name", "capacity" = x."capacity", "isLocked" = x."isLocked", "details" = coalesce(x."details", g."details"), "version" = g."version" + 1
           FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "name" text, "capacity" int, "isLocked" boolean, "details" jsonb) WHERE g."id" = x."id"`,
        [JSON.stringify(changed)],
      );
      const last = Math.max(0, ...[...before.values()].map((group) => group.number)); // numbers of those just removed are not given out again
      const added = groups.filter((group) => group.id === null);
      const rows = await this.making.addGroups(
        { manager },
        setId,
        added.map(({ name, capacity, isLocked, details }, at) => ({
          name,
          ...(details && { details }),
          capacity,
          isLocked,
          number: last + at + 1,
        })),
      );
      if (rows.length > 0) {
        await this.hearers.groupsMade({ manager, now, setId, by: enrolmentId });
      }
      const groupIds = [...changed.map((group) => group.id), ...rows.map((row) => row.id), ...removed];
      await tellOfGroups(record, person, set, {
        subjectId: setId,
        facts: { changed: changed.length, added: rows.length, removed: removed.length },
        groupIds,
      });
      return { groups: await groupsOfSet(manager, setId) };
    });
  }

  /** From now on these of the staff lead each of these groups, and no one else does. */
  async lead(person: SignedIn, setId: GroupSetId, { leads }: LeadGroups): Promise<BoardGroups> {
    const set = await setOf(this.dataSource.manager, setId);
    await this.viewers.staff(person, set.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const groupIds = [...new Set(leads.map((each) => each.groupId))];
      const staffIds = [...new Set(leads.flatMap((each) => each.enrolmentIds))];
      if (!(await areGroupsOfSet(manager, groupIds, setId))) throw problems.notFound();
      if (!(await areTeaching(manager, set.courseId, staffIds))) throw problems.notFound();
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
      const told = {
        type: 'group.edited' as const,
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
      };
      await record({ ...told, facts: { leads }, groupIds });
      return { groups: await groupsOfSet(manager, setId) };
    });
  }

  /** The name and motto that members give their group, where the set lets them. For everyone else there is nothing here. */
  async nameByMember(
    person: SignedIn,
    groupId: GroupId,
    { name, motto, version }: NameGroup,
  ): Promise<GroupNaming> {
    const { set, group: found } = await this.find(groupId);
    const viewer = await this.viewers.enter(person, set.courseId);
    const isTheirs = viewer.role === 'student' && viewer.groups.some((own) => own.groupId === groupId);
    if (!isTheirs || !set.membersName || set.archivedAt !== null) throw problems.notFound();
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
          `Someone of your group changed it meanwhile: it is called ${group.name} now.`,
        );
      await tellOfGroups(record, person, set, {
        subjectId: groupId,
        facts: { name, motto },
        groupIds: [groupId],
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
}
