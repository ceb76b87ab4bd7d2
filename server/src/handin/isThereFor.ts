import type { EntityManager } from 'typeorm';
import { ArrayContains } from 'typeorm';
import type { HandInRules } from '@jigsaw/core/handin';
import type { FileId } from '@jigsaw/core/ids';
import type { CopyAccess } from '../release/index.js';
import { HandInRow, WorkFileRow } from './handin.rows.js';

/** Whether a file is there for someone who may enter its copy: not a teammate's where each hands in alone; and what was deleted only for anyone who
 * may put it back, and as part of the hand-ins that it was in. */
export async function isThereFor(
  manager: EntityManager,
  { copy, viewer }: CopyAccess,
  rules: HandInRules,
  fileId: FileId,
): Promise<boolean> {
  const held = await manager.findOneBy(WorkFileRow, { fileId, copyId: copy.id });
  if (!held) return false;
  if (held.addedBy === viewer.enrolmentId) return true;
  if (rules.by === 'student' && viewer.role === 'student') return false;
  return (
    held.deletedAt === null ||
    manager.existsBy(HandInRow, { copyId: copy.id, fileIds: ArrayContains([fileId]) })
  );
}
