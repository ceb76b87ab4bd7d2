import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { BoardGroups, EditTopics, Topic } from '@jigsaw/contract/sets';
import { tableName } from '@jigsaw/core/dealing';
import type { GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import { mostGroups } from '@jigsaw/core/sets';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { removeGroup, tellOfGroups } from './groupChanges.js';
import { groupRows, lockSet, setOf } from './lookups.js';
import { SetHearers } from './setHearers.js';
import { SetMaking } from './setMaking.js';
import type { GroupRow } from './sets.rows.js';
import { GroupSetRow } from './sets.rows.js';
import { groupsOfSet } from './setViews.js';

type EditedTopic = EditTopics['topics'][number];

/** What expert tables are about, and how many tables each topic has. */
@Injectable()
export class TopicsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly making: SetMaking,
    private readonly hearers: SetHearers,
  ) {}

  /** All topics as they are to be; all of it is done, or none.
   * @throws conflict that names a table which has to stay. */
  async edit(person: SignedIn, setId: GroupSetId, { topics, version }: EditTopics): Promise<BoardGroups> {
    const found = await setOf(this.dataSource.manager, setId);
    const { enrolmentId } = await this.viewers.staff(person, found.courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await lockSet(manager, setId);
      if (set.topics.length === 0)
        throw problems.conflict('This set has no topics: its groups are no expert tables.');
      if (set.version !== version)
        throw problems.staleWrite(
          await groupsOfSet(manager, setId),
          'This set was changed meanwhile. Nothing was saved; what you wrote is kept here.',
        );
      const named = topics.flatMap((each) => each.topic ?? []);
      if (new Set(named).size < named.length || named.some((topic) => topic > set.topics.length))
        throw problems.invalidInput('These are not the topics of this set. Load the page again.');
      const groups = await groupRows(manager, setId);
      const last = Math.max(0, ...groups.map((group) => group.number)); // numbers of those just removed are not given out again
      const before = groupedBy(groups, (group) => group.topic);
      const kept = topics.map(({ topic }) => (topic === null ? [] : (before.get(topic) ?? [])));
      if (topics.reduce((sum, { tables }) => sum + tables, 0) > mostGroups)
        throw problems.invalidInput(`${mostGroups} tables are the most.`);

      const extra = topics.flatMap(({ tables }, at) => sure(kept[at]).slice(tables));
      const gone = set.topics.flatMap((_, at) => (named.includes(at + 1) ? [] : (before.get(at + 1) ?? [])));
      for (const group of [...extra, ...gone]) await removeGroup(manager, this.hearers, group);
      await renumber(manager, set.topics, topics, kept);
      const added = missing(topics, kept).map((group, at) => ({ ...group, number: last + at + 1 }));
      const rows = await this.making.addGroups({ manager }, setId, added);
      if (rows.length > 0) await this.hearers.groupsMade({ manager, now, setId, by: enrolmentId });
      await manager.update(
        GroupSetRow,
        { id: setId },
        { topics: topics.map(({ name, about }) => ({ name, about })), version: version + 1 },
      );
      await record({
        type: 'set.changed',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        facts: { topics: topics.length },
      });
      await tellOfGroups(record, person, set, {
        subjectId: setId,
        facts: { topics: topics.length, added: rows.length, removed: extra.length + gone.length },
        groupIds: [...kept.flat(), ...rows, ...gone].map((group) => group.id),
      });
      return { groups: await groupsOfSet(manager, setId) };
    });
  }
}

/** Tables that follow their topic to its new place; those that were called by it take its new name. */
async function renumber(
  manager: EntityManager,
  before: readonly Topic[],
  topics: readonly EditedTopic[],
  kept: readonly (readonly GroupRow[])[],
): Promise<void> {
  const changed = topics.flatMap(({ topic, name, tables }, at) => {
    const was = topic === null ? null : sure(before[topic - 1]).name;
    return sure(kept[at])
      .slice(0, tables)
      .map((group) => ({
        id: group.id,
        topic: at + 1,
        name:
          was !== null && isCalledBy(group.name, was)
            ? `${name}${group.name.slice(was.length)}`.slice(0, 80)
            : group.name,
      }))
      .filter((group, table) => {
        const is = sure(sure(kept[at])[table]);
        return is.topic !== group.topic || is.name !== group.name;
      });
  });
  await manager.query(
    `UPDATE "course_group" g SET "topic" = x."topic", "name" = x."name", "version" = g."version" + 1
       FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "topic" int, "name" text) WHERE g."id" = x."id"`,
    [JSON.stringify(changed)],
  );
}

/** “Salt” or “Salt 2”, and not “Salt lovers”. */
const isCalledBy = (name: string, topic: string): boolean =>
  name === topic || (name.startsWith(`${topic} `) && /^\d+$/.test(name.slice(topic.length + 1)));

const missing = (topics: readonly EditedTopic[], kept: readonly (readonly GroupRow[])[]) =>
  topics.flatMap(({ name, tables }, at) => {
    const there = Math.min(tables, sure(kept[at]).length);
    return Array.from({ length: tables - there }, (_, more) => ({
      name: tableName({ topic: name, parallel: tables === 1 ? null : there + more + 1 }).slice(0, 80),
      topic: at + 1,
    }));
  });
