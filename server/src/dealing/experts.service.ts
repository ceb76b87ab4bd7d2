import { Injectable } from '@nestjs/common';
import type { ExpertsDraft } from '@jigsaw/contract/dealing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { Home } from '@jigsaw/core/dealing';
import { expertTables, tableName } from '@jigsaw/core/dealing';
import type { GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { SignedIn } from '../identity/index.js';
import { Memberships } from '../placing/index.js';
import type { Work } from '../platform/unitOfWork.js';
import { setOf, SetMaking, SetViews } from '../sets/index.js';

@Injectable()
export class ExpertsService {
  constructor(
    private readonly making: SetMaking,
    private readonly views: SetViews,
    private readonly memberships: Memberships,
  ) {}

  /** Expert tables of the groups of this set (CALC §4), with everyone at theirs; within the transaction of the caller, who has made sure
   * that this person may. */
  async derive(
    work: Work,
    person: SignedIn,
    setId: GroupSetId,
    { name, topics, most, seed }: ExpertsDraft,
  ): Promise<GroupSetView> {
    const { courseId } = await setOf(work.manager, setId);
    const homes = await work.manager.query<Home[]>(
      `SELECT g."name", ARRAY(SELECT s."enrolmentId" FROM "seat" s WHERE s."groupId" = g."groupId" ORDER BY s."enrolmentId") AS "members"
         FROM "set_group" g WHERE g."setId" = $1 ORDER BY g."number"`,
      [setId],
    );
    const { tables } = expertTables({ homes, topics, most, seed });
    const draft = {
      name,
      pattern: 'Table {n}',
      isExclusive: true,
      homeSetId: setId,
      topics: topics.map((topic) => ({ name: topic, about: '' })),
    };
    const set = await this.making.add(work, courseId, draft);
    const groups = await this.making.addGroups(
      work,
      set.id,
      tables.map((table) => ({ name: tableName(table), topic: topics.indexOf(table.topic) + 1 })),
    );
    const seats = tables.flatMap((table, at) =>
      table.members.map((enrolmentId) => ({
        enrolmentId,
        groupId: sure(groups[at]).id,
        isLeader: false,
      })),
    );
    await this.memberships.begin(work, set, seats, person);
    await work.record({
      type: 'set.created',
      courseId,
      actorId: person.id,
      subjectId: set.id,
      facts: { expertsOf: setId, tables: tables.length },
      setIds: [set.id],
    });
    return this.views.one(work.manager, courseId, set.id);
  }
}
