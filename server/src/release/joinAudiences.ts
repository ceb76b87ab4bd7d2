import type { EntityManager } from 'typeorm';
import type { KeptAudience } from '@jigsaw/core/release';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Rewritten } from '../roster/index.js';
import { rewrite } from '../roster/index.js';

/** An audience that names one entry of a person names the one that stays. */
export async function joinAudiences(
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<readonly Rewritten[]> {
  const releases = await manager.query<{ id: string; audience: KeptAudience }[]>(
    `SELECT "id", "audience" FROM "release" WHERE "courseId" = (SELECT "courseId" FROM "course_person" WHERE "enrolmentId" = $1) AND position($1::text in "audience"::text) > 0`,
    [other],
  );
  const all = releases.map(({ id, audience }) => ({
    table: 'release',
    id,
    before: { audience },
    after: { audience: named(audience, keep, other) },
  }));
  for (const each of all) await rewrite(manager, each);
  return all;
}

const named = ({ include, exclude }: KeptAudience, keep: EnrolmentId, other: EnrolmentId): KeptAudience => ({
  include: include.map((entry) =>
    entry.kind === 'person' && entry.enrolmentId === other ? { ...entry, enrolmentId: keep } : entry,
  ),
  exclude: [...new Set(exclude.map((each) => (each === other ? keep : each)))],
});
