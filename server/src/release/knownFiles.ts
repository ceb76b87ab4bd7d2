import type { EntityManager } from 'typeorm';
import type { AttachedFile } from '@jigsaw/contract/release';
import type { ActivityId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { FileRow, FilesService } from '../files/index.js';
import { problems } from '../platform/problems.js';
import { ActivityFileRow } from './release.rows.js';

/** These files as they are kept; what a page says of their names counts for nothing.
 * @throws invalid-input for one that was not uploaded for this activity. */
export async function knownFiles(
  manager: EntityManager,
  files: FilesService,
  activityId: ActivityId,
  wanted: readonly AttachedFile[],
): Promise<AttachedFile[]> {
  if (wanted.length === 0) return [];
  const uploaded = await manager.findBy(ActivityFileRow, { activityId });
  const kept = keyedBy(
    await files.named(
      manager,
      uploaded.map(({ fileId }) => fileId),
    ),
    (file) => file.id,
  );
  return [...keyedBy(wanted, ({ id }) => id).values()].map(({ id, isPerGroup }) => {
    const file = kept.get(id);
    if (!file) throw problems.invalidInput('One of the files is not here. Remove it, and add it again.');
    return { ...attached(file), isPerGroup };
  });
}

/** A file as everyone is told of it who may read it. */
export const attached = ({ id, name, mediaType, sizeBytes }: FileRow): AttachedFile => ({
  id,
  name,
  mediaType,
  sizeBytes: Number(sizeBytes),
  isPerGroup: false,
});
