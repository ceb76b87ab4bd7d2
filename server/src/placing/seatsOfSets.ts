import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { sure } from '@jigsaw/core/lists';
import type { GroupSetId } from '@jigsaw/core/ids';
import { problems } from '../platform/problems.js';
import type { ChangingSet, RemovedGroup, SetHearer } from '../sets/index.js';
import { Memberships } from './memberships.js';
import { counted, namesTogether } from '@jigsaw/core/text';

/** What becomes of the seats when a set or its groups change. */
@Injectable()
export class SeatsOfSets implements SetHearer {
  constructor(private readonly memberships: Memberships) {}

  /** @throws conflict with names, if someone has several places and is to have one. */
  async setChanging({ manager, set, next }: ChangingSet): Promise<void> {
    if (set.isExclusive !== next.isExclusive) {
      if (next.isExclusive) refuseSeveralPlaces(await inSeveralGroups(manager, set.id));
      await this.memberships.makeExclusive(manager, set.id, next.isExclusive);
    }
    if (set.hasLeaders && !next.hasLeaders) await this.memberships.endLeading(manager, set.id);
  }

  /** @throws conflict while someone sits in it. */
  async groupRemoved({ manager, group }: RemovedGroup): Promise<void> {
    const [row] = await manager.query<{ members: number }[]>(
      `SELECT count(*)::int AS "members" FROM "membership" WHERE "groupId" = $1 AND "until" IS NULL`,
      [group.id],
    );
    const { members } = sure(row);
    if (members > 0)
      throw problems.conflict(
        `${counted(members, 'student is', 'students are')} in ${group.name}. Remove them first. Nothing was changed.`,
      );
  }
}

const inSeveralGroups = async (manager: EntityManager, setId: GroupSetId): Promise<string[]> =>
  (
    await manager.query<{ name: string }[]>(
      `SELECT p."name" FROM "membership" m JOIN "course_person" p ON p."enrolmentId" = m."enrolmentId"
        WHERE m."setId" = $1 AND m."until" IS NULL GROUP BY p."enrolmentId", p."name" HAVING count(*) > 1 ORDER BY p."name"`,
      [setId],
    )
  ).map((row) => row.name);

function refuseSeveralPlaces(names: readonly string[]): void {
  if (names.length === 0) return;
  throw problems.conflict(
    `${namesTogether(names, 2)} ${names.length === 1 ? 'is' : 'are'} in several groups. Remove them from all but one first.`,
  );
}
