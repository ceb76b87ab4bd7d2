import type { Readable } from 'node:stream';
import { Injectable } from '@nestjs/common';
import { DataSource, IsNull } from 'typeorm';
import type { z } from 'zod';
import type { CopyView, HandInRequest, SavePart } from '@jigsaw/contract/handin';
import type { CopyId, FileId } from '@jigsaw/core/ids';
import { countWords, plainText } from '@jigsaw/core/text';
import { FileRow, FilesService } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate } from '../release/index.js';
import { CreditRow, HandInRow, PartRow, WorkFileRow } from './handin.rows.js';
import { membersOf, WorkReader } from './work.js';

@Injectable()
export class HandInService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly gate: Gate,
    private readonly work: WorkReader,
    private readonly files: FilesService,
  ) {}

  async read(person: SignedIn, copyId: CopyId): Promise<CopyView> {
    return this.work.read(await this.gate.enter(person, copyId));
  }

  /** Saves one's own part as it is typed. Two windows of one person: the later one is shown both texts. */
  async savePart(person: SignedIn, copyId: CopyId, { text, version }: z.output<typeof SavePart>): Promise<CopyView> {
    const access = await this.memberAccess(person, copyId);
    const { enrolmentId } = access.viewer;
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const words = countWords(plainText(text));
      const known = await manager.findOne(PartRow, { where: { copyId, enrolmentId }, lock: { mode: 'pessimistic_write' } });
      if ((known?.version ?? 0) !== version)
        throw problems.staleWrite(await this.work.read(access, manager), 'You wrote on in another window. Both texts are here; choose one.');
      if (known) await manager.update(PartRow, known.id, { text: json(text), words, version: version + 1, updatedAt: now });
      else {
        const { identifiers } = await manager
          .createQueryBuilder()
          .insert()
          .into(PartRow)
          .values({ id: newId(), copyId, enrolmentId, text: json(text), words, version: 1, createdAt: now, updatedAt: now })
          .orIgnore()
          .execute();
        if (identifiers.length === 0) throw problems.staleWrite(await this.work.read(access, manager)); // two first saves at once
      }
      await record({
        type: 'part.saved',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { words },
        groupIds: [access.copy.groupId!],
      });
      return this.work.read(access, manager);
    });
  }

  async addFile(person: SignedIn, copyId: CopyId, upload: { name: string; mediaType: string; sizeBytes: number | null; source: Readable }): Promise<CopyView> {
    await this.memberAccess(person, copyId);
    const arrived = await this.files.receive(upload.source, upload.sizeBytes);
    const access = await this.memberAccess(person, copyId); // a long upload: they may have been moved, or it may have closed, meanwhile
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const file = await this.files.keep(manager, arrived, upload.name, upload.mediaType);
      await manager.insert(WorkFileRow, { fileId: file.id, copyId, addedBy: access.viewer.enrolmentId, addedAt: now, takenOutAt: null });
      await record({
        type: 'file.added',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { fileId: file.id, sizeBytes: arrived.sizeBytes },
        groupIds: [access.copy.groupId!],
      });
      return this.work.read(access, manager);
    });
  }

  /** Only whoever added a file takes it out. It comes back the same way. */
  async takeOut(person: SignedIn, copyId: CopyId, fileId: FileId, isOut: boolean): Promise<CopyView> {
    const access = await this.memberAccess(person, copyId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const file = await manager.findOneBy(WorkFileRow, { fileId, copyId });
      if (!file) throw problems.notFound();
      if (file.addedBy !== access.viewer.enrolmentId) throw problems.notYours('A teammate added this file; only they can take it out.');
      const isOutNow = file.takenOutAt !== null;
      if (isOut === isOutNow) return this.work.read(access, manager); // pressed twice
      await manager.update(WorkFileRow, { fileId }, { takenOutAt: isOut ? now : null });
      await record({
        type: isOut ? 'file.taken-out' : 'file.put-back',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { fileId },
        groupIds: [access.copy.groupId!],
      });
      return this.work.read(access, manager);
    });
  }

  /** Freezes what is there for the whole group. `attempt` is the one the person had in view: two members who press at once hand in once. */
  async handIn(person: SignedIn, copyId: CopyId, { attempt }: HandInRequest): Promise<CopyView> {
    const access = await this.memberAccess(person, copyId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.query('SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE', [copyId]); // hand-ins of one copy take turns
      const next = (await manager.countBy(HandInRow, { copyId })) + 1;
      if (attempt !== next)
        throw problems.staleWrite(
          await this.work.read(access, manager),
          'A teammate handed in a moment ago. Look at what is handed in; hand in again if something is missing.',
        );
      const parts = await manager.find(PartRow, { where: { copyId }, order: { createdAt: 'ASC' } });
      const files = await manager.find(WorkFileRow, { where: { copyId, takenOutAt: IsNull() }, order: { addedAt: 'ASC' } });
      const written = parts.filter((part) => part.words > 0);
      if (written.length === 0 && files.length === 0) throw problems.invalidInput('There is nothing to hand in yet. Write something or add a file.');

      const handInId = newId<'hand-in'>();
      await manager.insert(HandInRow, {
        id: handInId,
        copyId,
        attempt,
        handedInBy: access.viewer.enrolmentId,
        handedInAt: now,
        parts: json(written.map((part) => ({ enrolmentId: part.enrolmentId, text: part.text, words: part.words }))) as object[],
        fileIds: files.map((file) => file.fileId),
      });
      const members = await membersOf(manager, access.copy.groupId);
      await manager.insert(
        CreditRow,
        members.map((enrolmentId) => ({ handInId, enrolmentId })),
      );
      await record({
        type: 'handed-in',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { attempt, files: files.length, credited: members.length },
        groupIds: [access.copy.groupId!],
      });
      return this.work.read(access, manager);
    });
  }

  async file(person: SignedIn, copyId: CopyId, fileId: FileId): Promise<{ file: FileRow; chunks: AsyncGenerator<Buffer> }> {
    const access = await this.gate.enter(person, copyId);
    return this.fileOf(access, fileId);
  }

  private async fileOf(access: CopyAccess, fileId: FileId): Promise<{ file: FileRow; chunks: AsyncGenerator<Buffer> }> {
    const held = await this.dataSource.getRepository(WorkFileRow).findOneBy({ fileId, copyId: access.copy.id });
    if (!held) throw problems.notFound();
    const file = await this.dataSource.getRepository(FileRow).findOneByOrFail({ id: fileId });
    return { file, chunks: this.files.chunksOf(file) };
  }

  /** Work belongs to the group's members; staff read it and leave it alone. */
  private async memberAccess(person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId, 'open');
    if (!access.viewer.groups.some((group) => group.groupId === access.copy.groupId))
      throw problems.notYours("This is the group's own work. Only its members write in it.");
    return access;
  }
}
