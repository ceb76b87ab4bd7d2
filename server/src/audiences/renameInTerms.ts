import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { Term } from '@jigsaw/core/audiences';
import type { CourseId } from '@jigsaw/core/ids';
import type { RenamedAttribute } from '../course/index.js';
import { SavedAudienceRow } from './audiences.rows.js';

/** Lines go on finding people by an attribute under its new name. Someone who edits them meanwhile is told of a conflict. */
export async function renameInTerms(
  manager: EntityManager,
  courseId: CourseId,
  { from, to }: RenamedAttribute,
): Promise<void> {
  const renamed = (term: Term): Term =>
    term.kind === 'attribute' && term.name === from ? { ...term, name: to } : term;
  const rows = await manager.findBy(SavedAudienceRow, { courseId, deletedAt: IsNull() });
  for (const { id, terms, version } of rows) {
    const next = { include: terms.include.map(renamed), exclude: terms.exclude.map(renamed) };
    if (JSON.stringify(next) !== JSON.stringify(terms))
      await manager.update(SavedAudienceRow, { id }, { terms: next, version: version + 1 });
  }
}
