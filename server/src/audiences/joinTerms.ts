import type { EntityManager } from 'typeorm';
import type { Term } from '@jigsaw/core/audiences';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Rewritten } from '../roster/index.js';
import { rewrite } from '../roster/index.js';
import type { SavedAudienceRow } from './audiences.rows.js';

/** A saved audience that names one entry of a person names the one that stays. */
export async function joinTerms(
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<readonly Rewritten[]> {
  const rows = await manager.query<Pick<SavedAudienceRow, 'id' | 'terms'>[]>(
    `SELECT "id", "terms" FROM "saved_audience" WHERE "courseId" = (SELECT "courseId" FROM "course_person" WHERE "enrolmentId" = $1) AND position($1::text in "terms"::text) > 0`,
    [other],
  );
  const renamed = (term: Term): Term =>
    term.kind === 'person' && term.enrolmentId === other ? { ...term, enrolmentId: keep } : term;
  const all = rows.map(({ id, terms }) => ({
    table: 'saved_audience',
    id,
    before: { terms },
    after: { terms: { include: terms.include.map(renamed), exclude: terms.exclude.map(renamed) } },
  }));
  for (const each of all) await rewrite(manager, each);
  return all;
}
