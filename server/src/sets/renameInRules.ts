import type { EntityManager } from 'typeorm';
import type { DealRule } from '@jigsaw/contract/sets';
import type { CourseId } from '@jigsaw/core/ids';
import type { RenamedAttribute } from '../course/index.js';
import { GroupSetRow } from './sets.rows.js';

/** Rules of deals go on speaking of an attribute under its new name. A rule that was written meanwhile on the old one is a conflict. */
export async function renameInRules(
  manager: EntityManager,
  courseId: CourseId,
  { from, to }: RenamedAttribute,
): Promise<void> {
  const speaksOfIt = (rule: DealRule) => 'attribute' in rule && rule.attribute === from;
  for (const { id, rules, version } of await manager.findBy(GroupSetRow, { courseId })) {
    if (!rules.some(speaksOfIt)) continue;
    const renamed = rules.map((rule) => (speaksOfIt(rule) ? { ...rule, attribute: to } : rule));
    await manager.update(GroupSetRow, { id }, { rules: renamed, version: version + 1 });
  }
}
