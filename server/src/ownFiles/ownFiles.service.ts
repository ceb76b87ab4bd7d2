import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { OwnFile, OwnFiles, OwnVersion, RestoreOwnVersion } from '@jigsaw/contract/ownFiles';
import type { CopyId, FileId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { mostVersions, originalsOf, ownFileRules } from '@jigsaw/core/ownFiles';
import { mayAct } from '@jigsaw/core/release';
import { authorsById } from '../course/index.js';
import type { FileRow, Upload } from '../files/index.js';
import { FilesService } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, hearersOf, lockCopy } from '../release/index.js';
import { OwnVersionRow } from './ownFiles.rows.js';

interface Download {
  readonly file: FileRow;
  readonly chunks: AsyncIterable<Buffer>;
}

/** Files of which each copy has its own: who is in it changes them, and every version stays. */
@Injectable()
export class OwnFilesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly gate: Gate,
    private readonly files: FilesService,
  ) {}

  /** All that one copy has as its own, for those who may read it. */
  async of(manager: EntityManager, access: CopyAccess): Promise<OwnFiles> {
    const { copy, activity, viewer, decision } = access;
    const rows = await manager.find(OwnVersionRow, { where: { copyId: copy.id }, order: { number: 'DESC' } });
    const originals = originalsOf(
      activity.files,
      rows.map(({ originalId }) => originalId),
    );
    const named = keyedBy(
      await this.files.named(manager, [...originals, ...rows.map(({ fileId }) => fileId)]),
      ({ id }) => id,
    );
    const author = await authorsById(manager, [...new Set(rows.map(({ by }) => by))], viewer.enrolmentId);
    const rowsOf = groupedBy(rows, ({ originalId }) => originalId);
    const version = (row: OwnVersionRow): OwnVersion => ({
      number: row.number,
      ...told(sure(named.get(row.fileId))),
      by: author(row.by),
      at: row.at.toISOString(),
      restored: row.restored,
    });
    const files = originals.map((originalId): OwnFile => {
      const original = sure(named.get(originalId));
      const asAttached = { number: 0, ...told(original), by: null, at: null, restored: null };
      return {
        originalId,
        name: original.name,
        versions: [...(rowsOf.get(originalId) ?? []).map(version), asAttached],
      };
    });
    return { files, mayPut: mayAct(ownFileRules, 'put', decision) };
  }

  /** A new version on top of the newest that the person has seen.
   * @throws stale-write where there is a newer one: it is looked at first; nothing of this one stays. */
  async put(
    person: SignedIn,
    copyId: CopyId,
    originalId: FileId,
    newest: number,
    upload: Upload,
  ): Promise<OwnFiles> {
    await this.enterTo(person, copyId, originalId);
    const arrived = await this.files.receive(person.id, upload.source, upload.sizeBytes);
    try {
      // The upload may have lasted: what they may do is what they may do now.
      const access = await this.enterTo(person, copyId, originalId);
      return await this.unitOfWork.run(async (work) => {
        await lockCopy(work.manager, copyId);
        const number = await this.nextNumber(work.manager, access, originalId, newest);
        const { id: fileId } = await this.files.keep(work.manager, arrived, upload.name, upload.mediaType);
        return this.add(work, person, access, { originalId, number, fileId, restored: null });
      });
    } catch (error) {
      await this.files.discard(arrived);
      throw error;
    }
  }

  /** An earlier version, as the newest again; those between stay. */
  async restore(
    person: SignedIn,
    copyId: CopyId,
    originalId: FileId,
    { number: restored, newest }: RestoreOwnVersion,
  ): Promise<OwnFiles> {
    const access = await this.enterTo(person, copyId, originalId);
    return this.unitOfWork.run(async (work) => {
      await lockCopy(work.manager, copyId);
      const fileId = await this.fileOf(work.manager, copyId, originalId, restored);
      const number = await this.nextNumber(work.manager, access, originalId, newest);
      return this.add(work, person, access, { originalId, number, fileId, restored });
    });
  }

  /** The bytes of one version. */
  async read(person: SignedIn, copyId: CopyId, originalId: FileId, number: number): Promise<Download> {
    const { manager } = this.dataSource;
    await this.enter(person, copyId, originalId);
    const fileId = await this.fileOf(manager, copyId, originalId, number);
    const [file] = await this.files.named(manager, [fileId]);
    if (!file) throw problems.notFound();
    return { file, chunks: this.files.chunksOf(file) };
  }

  private async add(
    { manager, now, record }: Work,
    person: SignedIn,
    access: CopyAccess,
    version: Pick<OwnVersionRow, 'originalId' | 'number' | 'fileId' | 'restored'>,
  ): Promise<OwnFiles> {
    const { copy, release, viewer } = access;
    await manager.insert(OwnVersionRow, { copyId: copy.id, by: viewer.enrolmentId, at: now, ...version });
    await record({
      type: 'own-file.changed',
      courseId: release.courseId,
      actorId: person.id,
      subjectId: copy.id,
      facts: { originalId: version.originalId, number: version.number },
      ...hearersOf(access),
    });
    return this.of(manager, access);
  }

  private async nextNumber(
    manager: EntityManager,
    access: CopyAccess,
    originalId: FileId,
    newest: number,
  ): Promise<number> {
    const known =
      (await manager.maximum(OwnVersionRow, 'number', { copyId: access.copy.id, originalId })) ?? 0;
    if (known !== newest)
      throw problems.staleWrite(
        await this.of(manager, access),
        'There is a newer version of this file. Look at it first, then add yours.',
      );
    if (known >= mostVersions)
      throw problems.conflict(
        `This file has ${mostVersions} versions, the most that are kept. Ask staff for a new one.`,
      );
    return known + 1;
  }

  /** @throws not-found for a version that is not there. */
  private async fileOf(
    manager: EntityManager,
    copyId: CopyId,
    originalId: FileId,
    number: number,
  ): Promise<FileId> {
    if (number === 0) return originalId;
    const row = await manager.findOneBy(OwnVersionRow, { copyId, originalId, number });
    if (!row) throw problems.notFound();
    return row.fileId;
  }

  /** @throws not-found for a file that is not this copy's own. */
  private async enter(person: SignedIn, copyId: CopyId, originalId: FileId): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    const isOwn =
      originalsOf(access.activity.files, []).includes(originalId) ||
      (await this.dataSource.manager.existsBy(OwnVersionRow, { copyId, originalId }));
    if (!isOwn) throw problems.notFound();
    return access;
  }

  private async enterTo(person: SignedIn, copyId: CopyId, originalId: FileId): Promise<CopyAccess> {
    const access = await this.enter(person, copyId, originalId);
    if (mayAct(ownFileRules, 'put', access.decision)) return access;
    throw access.decision.part === 'member'
      ? problems.closed()
      : problems.notYours('You may read this file, not change it.');
  }
}

const told = ({ name, mediaType, sizeBytes }: FileRow) => ({ name, mediaType, sizeBytes: Number(sizeBytes) });
