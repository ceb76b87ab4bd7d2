import type { EntityManager } from 'typeorm';
import type { ShelfView } from '@jigsaw/contract/shelf';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { GroupId, ShelfFileId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import type { Shelved } from '@jigsaw/core/shelf';
import { authorsById } from '../course/index.js';
import type { FileRow, FilesService } from '../files/index.js';
import { ShelfFileRow, ShelfSeenRow, ShelfVersionRow } from './shelf.rows.js';

interface VersionFacts {
  readonly row: ShelfVersionRow;
  readonly stored: FileRow;
}
interface FileFacts extends Shelved<ShelfFileId> {
  readonly row: ShelfFileRow;
  /** The newest first; never none. */
  readonly history: readonly VersionFacts[];
}

/** What lies on one shelf. */
export interface ShelfFacts {
  readonly groupId: GroupId;
  /** Removed ones too, what was changed last first. */
  readonly all: readonly FileFacts[];
  readonly files: readonly FileFacts[];
  /** Of all versions, those of removed files too. */
  readonly bytes: number;
}

export async function factsOfShelf(
  manager: EntityManager,
  files: FilesService,
  groupId: GroupId,
): Promise<ShelfFacts> {
  const rows = await manager.findBy(ShelfFileRow, { groupId });
  const versions = await manager
    .createQueryBuilder(ShelfVersionRow, 'version')
    .innerJoin(ShelfFileRow, 'file', 'file."id" = version."fileId" AND file."groupId" = :groupId', {
      groupId,
    })
    .orderBy('version.number', 'DESC')
    .getMany();
  const storedIds = [...new Set(versions.map(({ storedId }) => storedId))];
  const storedById = keyedBy(await files.named(manager, storedIds), ({ id }) => id);
  const versionsOf = groupedBy(versions, ({ fileId }) => fileId);
  const all = rows
    .map((row): FileFacts => {
      const history = sure(versionsOf.get(row.id)).map((version) => ({
        row: version,
        stored: sure(storedById.get(version.storedId)),
      }));
      const { name, sha256 } = sure(history[0]).stored;
      return { id: row.id, newest: { name, sha256 }, versions: history.length, row, history };
    })
    .toSorted((one, other) => changedAt(other) - changedAt(one));
  return {
    groupId,
    all,
    files: all.filter(({ row }) => row.removedAt === null),
    // The bytes of a restored version are kept once.
    bytes: [...storedById.values()].reduce((sum, { sizeBytes }) => sum + Number(sizeBytes), 0),
  };
}

const changedAt = ({ history }: FileFacts): number => sure(history[0]).row.at.getTime();

/** Who may remove a file and restore it. */
export const isOwnOrManaged = ({ enrolmentId, role }: Viewer, { addedBy }: ShelfFileRow): boolean =>
  addedBy === enrolmentId || may(role, 'manage-groups');

/** A shelf as one person has it before them. */
export async function viewOf(
  manager: EntityManager,
  { groupId, all, files, bytes }: ShelfFacts,
  viewer: Viewer,
): Promise<ShelfView> {
  const { enrolmentId } = viewer;
  const seen = await manager.findOneBy(ShelfSeenRow, { groupId, enrolmentId });
  const people = all.flatMap(({ row, history }) => [...(row.removedBy ? [row.removedBy] : []), ...history.map((each) => each.row.by)]); // prettier-ignore
  const person = await authorsById(manager, [...new Set(people)], enrolmentId);
  return {
    files: files.map(({ id, row, history }) => {
      const newest = sure(history[0]).row;
      return {
        id,
        versions: history.map(({ row: { number, by, at, restored }, stored }) => ({
          number,
          name: stored.name,
          mediaType: stored.mediaType,
          sizeBytes: Number(stored.sizeBytes),
          by: person(by),
          at: at.toISOString(),
          restored,
        })),
        isNew: newest.by !== enrolmentId && (seen === null || newest.at > seen.upTo),
        mayRemove: isOwnOrManaged(viewer, row),
      };
    }),
    removed: all
      .flatMap(({ id, row, newest }) => {
        const { removedAt, removedBy } = row;
        if (removedAt === null || removedBy === null || !isOwnOrManaged(viewer, row)) return [];
        return [{ id, name: newest.name, by: person(removedBy), at: removedAt.toISOString() }];
      })
      .toSorted((one, other) => Date.parse(other.at) - Date.parse(one.at)),
    mayPut: !may(viewer.role, 'read-course'),
    bytes,
  };
}
