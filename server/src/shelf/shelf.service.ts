import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { Done } from '@jigsaw/contract/common';
import type { RestoreOwnVersion } from '@jigsaw/contract/ownFiles';
import type { MarkSeenOnShelf, ShelfView } from '@jigsaw/contract/shelf';
import type { ActType } from '@jigsaw/core/audit';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { FileId, GroupId, ShelfFileId } from '@jigsaw/core/ids';
import { mostVersions, putOn, sayRefusal } from '@jigsaw/core/shelf';
import { Viewers } from '../course/index.js';
import type { Arrived, FileRow, Upload } from '../files/index.js';
import { FilesService } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { practiceRoundOf } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { enterRoom } from '../rooms/index.js';
import type { ShelfFacts } from './shelfFacts.js';
import { factsOfShelf, isOwnOrManaged, viewOf } from './shelfFacts.js';
import { ShelfFileRow, ShelfVersionRow } from './shelf.rows.js';

/** Someone at a shelf. */
interface AtShelf {
  readonly person: SignedIn;
  readonly viewer: Viewer;
  readonly groupId: GroupId;
}
/** As it is while no one else changes it. */
interface Held extends AtShelf {
  readonly work: Work;
  readonly facts: ShelfFacts;
}
interface NewVersion {
  readonly fileId: ShelfFileId;
  readonly storedId: FileId;
  readonly restored: number | null;
}

/** A group's shelf: its members share files there, every version stays, and staff who see the group's work see it. */
@Injectable()
export class ShelfService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly files: FilesService,
    private readonly clock: Clock,
  ) {}

  /** @throws not-found for a group that is not theirs to look into, too. */
  async read(person: SignedIn, groupId: GroupId): Promise<ShelfView> {
    const { manager } = this.dataSource;
    const viewer = await enterRoom(manager, this.viewers, person, groupId);
    // Who practises is a member for trying out; what the members share is theirs.
    if (practiceRoundOf(person) !== null) return { files: [], removed: [], mayPut: false, bytes: 0 };
    return viewOf(manager, await factsOfShelf(manager, this.files, groupId), viewer);
  }

  /** Under a name that is there it is the next version; sent twice it is there once. */
  async put(person: SignedIn, groupId: GroupId, upload: Upload): Promise<ShelfView> {
    return this.receive(person, groupId, upload, async (held, arrived) => {
      const { facts, viewer, work } = held;
      const put = putOn(facts, { ...arrived, name: upload.name });
      switch (put.to) {
        case 'there':
          await this.files.discard(arrived);
          return viewOf(work.manager, facts, viewer);
        case 'refused':
          throw problems.conflict(sayRefusal(put.why));
        case 'version':
          return this.addVersion(held, put.of, arrived, upload);
        case 'new': {
          const fileId = newId<'shelf-file'>();
          await work.manager.insert(ShelfFileRow, { id: fileId, groupId, addedBy: viewer.enrolmentId });
          return this.addVersion(held, fileId, arrived, upload);
        }
      }
    });
  }

  /** A new version on top of the newest that the person has seen.
   * @throws stale-write where there is a newer one: it is looked at first; nothing of this one stays. */
  async putVersion(
    person: SignedIn,
    groupId: GroupId,
    fileId: ShelfFileId,
    newest: number,
    upload: Upload,
  ): Promise<ShelfView> {
    // Asked before a byte is taken in: what is not there takes no file.
    await this.enterToPut(person, groupId);
    await this.refuseUnlessThere(groupId, fileId);
    return this.receive(person, groupId, upload, async (held, arrived) => {
      await refuseUnlessNewest(held, fileId, newest);
      const put = putOn({ files: [], bytes: held.facts.bytes }, { ...arrived, name: upload.name });
      if (put.to === 'refused') throw problems.conflict(sayRefusal(put.why));
      return this.addVersion(held, fileId, arrived, upload);
    });
  }

  /** An earlier version, as the newest again; those between stay. */
  async restoreVersion(
    person: SignedIn,
    groupId: GroupId,
    fileId: ShelfFileId,
    { number: restored, newest }: RestoreOwnVersion,
  ): Promise<ShelfView> {
    const at = await this.enterToPut(person, groupId);
    return this.hold(at, async (held) => {
      const { storedId } = await versionOf(held.work.manager, held.facts, fileId, restored);
      await refuseUnlessNewest(held, fileId, newest);
      return this.add(held, { fileId, storedId, restored });
    });
  }

  /** Who put it there, or who manages the groups, removes a file and restores it. */
  async remove(
    person: SignedIn,
    groupId: GroupId,
    fileId: ShelfFileId,
    isRemoved: boolean,
  ): Promise<ShelfView> {
    const at = await this.enter(person, groupId);
    return this.hold(at, async (held) => {
      const { work, viewer, facts } = held;
      const file = facts.all.find(({ row }) => row.id === fileId);
      if (!file) throw problems.notFound();
      if (!isOwnOrManaged(viewer, file.row))
        // What others removed is not told to those who cannot restore it.
        throw file.row.removedAt ? problems.notFound() : problems.notYours('Who put a file here removes it, or an instructor.'); // prettier-ignore
      if (isRemoved === (file.row.removedAt !== null)) return viewOf(work.manager, facts, viewer); // pressed twice
      if (!isRemoved && putOn(facts, { ...file.newest, sizeBytes: 0 }).to === 'refused')
        throw problems.conflict(sayRefusal('files'));
      const removed = isRemoved ? { removedAt: work.now, removedBy: viewer.enrolmentId } : { removedAt: null, removedBy: null }; // prettier-ignore
      await work.manager.update(ShelfFileRow, fileId, removed);
      return this.tell(held, isRemoved ? 'shelf-file.removed' : 'shelf-file.restored', fileId);
    });
  }

  /** The bytes of one version. */
  async readFile(
    person: SignedIn,
    groupId: GroupId,
    fileId: ShelfFileId,
    number: number,
  ): Promise<{ readonly file: FileRow; readonly chunks: AsyncIterable<Buffer> }> {
    const { manager } = this.dataSource;
    await this.enter(person, groupId);
    await this.refuseUnlessThere(groupId, fileId);
    const version = await manager.findOneBy(ShelfVersionRow, { fileId, number });
    const [file] = version ? await this.files.named(manager, [version.storedId]) : [];
    if (!file) throw problems.notFound();
    return { file, chunks: this.files.chunksOf(file) };
  }

  /** Told late, or by an older page, it takes nothing back. */
  async markSeen(person: SignedIn, groupId: GroupId, { upTo }: MarkSeenOnShelf): Promise<Done> {
    const { viewer } = await this.enter(person, groupId);
    await this.dataSource.query(
      `INSERT INTO "shelf_seen" ("groupId", "enrolmentId", "upTo") VALUES ($1, $2, LEAST($3::timestamptz, $4))
       ON CONFLICT ("groupId", "enrolmentId") DO UPDATE SET "upTo" = GREATEST("shelf_seen"."upTo", EXCLUDED."upTo")`,
      [groupId, viewer.enrolmentId, upTo, this.clock.now()],
    );
    return { done: true };
  }

  private async enter(person: SignedIn, groupId: GroupId): Promise<AtShelf> {
    const viewer = await enterRoom(this.dataSource.manager, this.viewers, person, groupId);
    if (practiceRoundOf(person) !== null) throw problems.notFound();
    return { person, viewer, groupId };
  }

  private async enterToPut(person: SignedIn, groupId: GroupId): Promise<AtShelf> {
    const at = await this.enter(person, groupId);
    if (may(at.viewer.role, 'read-course'))
      throw problems.notYours('Members of the group put files on its shelf. You may read them.');
    return at;
  }

  /** Takes a file in, and uses it while no one else changes the shelf. */
  private async receive(
    person: SignedIn,
    groupId: GroupId,
    upload: Upload,
    use: (held: Held, arrived: Arrived) => Promise<ShelfView>,
  ): Promise<ShelfView> {
    await this.enterToPut(person, groupId);
    const arrived = await this.files.receive(person.id, upload.source, upload.sizeBytes);
    try {
      // The upload may have lasted: what they may do is what they may do now.
      return await this.hold(await this.enterToPut(person, groupId), (held) => use(held, arrived));
    } catch (error) {
      await this.files.discard(arrived);
      throw error;
    }
  }

  /** One at a time on a shelf, so that its limits hold and its times follow one another. */
  private hold(at: AtShelf, use: (held: Held) => Promise<ShelfView>): Promise<ShelfView> {
    return this.unitOfWork.run(async (work) => {
      const { manager } = work;
      await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [`shelf ${at.groupId}`]);
      const facts = await factsOfShelf(manager, this.files, at.groupId);
      return use({ ...at, work: { ...work, now: this.clock.now() }, facts });
    });
  }

  private async addVersion(
    held: Held,
    fileId: ShelfFileId,
    arrived: Arrived,
    { name, mediaType }: Upload,
  ): Promise<ShelfView> {
    const { id: storedId } = await this.files.keep(held.work.manager, arrived, name, mediaType);
    return this.add(held, { fileId, storedId, restored: null });
  }

  private async add(held: Held, { fileId, storedId, restored }: NewVersion): Promise<ShelfView> {
    const { work, viewer, facts } = held;
    const number = (facts.files.find(({ id }) => id === fileId)?.versions ?? 0) + 1;
    if (number > mostVersions) throw problems.conflict(sayRefusal('versions'));
    await work.manager.insert(ShelfVersionRow, { fileId, number, storedId, by: viewer.enrolmentId, at: work.now, restored }); // prettier-ignore
    return this.tell(held, number === 1 ? 'shelf-file.added' : 'shelf-file.changed', fileId);
  }

  private async tell(held: Held, type: ActType, fileId: ShelfFileId): Promise<ShelfView> {
    const { work, person, viewer, groupId } = held;
    const { manager, record } = work;
    await record({
      type,
      courseId: viewer.courseId,
      actorId: person.id,
      subjectId: fileId,
      facts: { groupId },
      groupIds: [groupId],
      staff: 'read-course',
      staffOf: groupId,
    });
    return viewOf(manager, await factsOfShelf(manager, this.files, groupId), viewer);
  }

  private async refuseUnlessThere(groupId: GroupId, fileId: ShelfFileId): Promise<void> {
    const file = await this.dataSource.manager.findOneBy(ShelfFileRow, { id: fileId, groupId });
    if (!file || file.removedAt) throw problems.notFound();
  }
}

/** @throws not-found for a file or a version that is not on the shelf. */
async function versionOf(
  manager: EntityManager,
  { files }: ShelfFacts,
  fileId: ShelfFileId,
  number: number,
): Promise<ShelfVersionRow> {
  const version = files.some(({ id }) => id === fileId) ? await manager.findOneBy(ShelfVersionRow, { fileId, number }) : null; // prettier-ignore
  if (!version) throw problems.notFound();
  return version;
}

/** @throws stale-write where there is a newer version than was seen; not-found where the file was removed. */
async function refuseUnlessNewest(
  { work, facts, viewer }: Held,
  fileId: ShelfFileId,
  newest: number,
): Promise<void> {
  const file = facts.files.find(({ id }) => id === fileId);
  if (!file) throw problems.notFound();
  if (file.versions !== newest)
    throw problems.staleWrite(
      await viewOf(work.manager, facts, viewer),
      'There is a newer version of this file. Look at it first, then add yours.',
    );
}
