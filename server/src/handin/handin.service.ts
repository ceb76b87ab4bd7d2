import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull } from 'typeorm';
import type { z } from 'zod';
import type { HandInRequest, SavePart, WorkView } from '@jigsaw/contract/handin';
import type { HandInAct, HandInRules, OfferedFile } from '@jigsaw/core/handin';
import { checkFile, endingOf, handInActs, sayFileRefusal } from '@jigsaw/core/handin';
import type { CopyId, EnrolmentId, FileId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { mayAct } from '@jigsaw/core/release';
import { plainText } from '@jigsaw/core/text';
import type { Arrived, FileRow, Upload } from '../files/index.js';
import { FilesService } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { arrivalOfRequest } from '../platform/requestContext.js';
import { Texts } from '../platform/texts.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, hearersOf, lockCopy, membersOfCopies } from '../release/index.js';
import { HandInKinds } from './handin.kinds.js';
import { CreditRow, HandInRow, PartRow, WorkFileRow } from './handin.rows.js';
import { isThereFor } from './isThereFor.js';
import { WorkReader } from './work.js';

interface Entered {
  readonly access: CopyAccess;
  readonly rules: HandInRules;
}

@Injectable()
export class HandInService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly texts: Texts,
    private readonly gate: Gate,
    private readonly kinds: HandInKinds,
    private readonly work: WorkReader,
    private readonly files: FilesService,
  ) {}

  async read(person: SignedIn, copyId: CopyId): Promise<WorkView> {
    return this.view(await this.enter(person, copyId));
  }

  /** Saves one's own part as it is typed. Two windows of one person: the later one is shown both texts. */
  async savePart(
    person: SignedIn,
    copyId: CopyId,
    { text, version }: z.output<typeof SavePart>,
  ): Promise<WorkView> {
    const entered = await this.enterTo('work', person, copyId);
    const { access } = entered;
    if (!entered.rules.takesText)
      throw problems.invalidInput('Files are handed in here, no text. Add a file.');
    const { enrolmentId } = access.viewer;
    const words = await this.texts.words(person.id, plainText(text));
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await this.refuseSecond(manager, entered);
      const known = await manager.findOne(PartRow, {
        where: { copyId, enrolmentId },
        lock: { mode: 'pessimistic_write' },
      });
      if ((known?.version ?? 0) !== version)
        throw problems.staleWrite(
          await this.view(entered, manager),
          'You edited this in another window. Both texts are here; choose one.',
        );
      if (known)
        await manager.update(PartRow, known.id, {
          text: json(text),
          words,
          version: version + 1,
          updatedAt: now,
        });
      else {
        const { raw } = (await manager
          .createQueryBuilder()
          .insert()
          .into(PartRow)
          .values({
            id: newId(),
            copyId,
            enrolmentId,
            text: json(text),
            words,
            version: 1,
            createdAt: now,
            updatedAt: now,
          })
          .orIgnore()
          .returning('id')
          .execute()) as { raw: unknown[] };
        if (raw.length === 0) throw problems.staleWrite(await this.view(entered, manager)); // two first saves at once
      }
      await record({ type: 'part.saved', facts: { words }, ...this.about(person, entered) });
      return this.view(entered, manager);
    });
  }

  async addFile(person: SignedIn, copyId: CopyId, upload: Upload): Promise<WorkView> {
    const before = await this.enterTo('work', person, copyId);
    // What can be known before the bytes come is said before they come.
    const announced = { name: upload.name, sizeBytes: upload.sizeBytes ?? 0, found: endingOf(upload.name) };
    await this.refuseFile(this.dataSource.manager, before, announced);
    const arrived = await this.files.receive(person.id, upload.source, upload.sizeBytes);
    try {
      return await this.keepFile(person, copyId, upload, arrived);
    } catch (error) {
      await this.files.discard(arrived);
      throw error;
    }
  }

  /** Only the person who added a file deletes it. It is restored the same way. */
  async remove(person: SignedIn, copyId: CopyId, fileId: FileId, isDeleted: boolean): Promise<WorkView> {
    const entered = await this.enterTo('work', person, copyId);
    const { access, rules } = entered;
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await lockCopy(manager, copyId);
      const file = await manager.findOneBy(WorkFileRow, { fileId, copyId });
      const isTheirs = file?.addedBy === access.viewer.enrolmentId;
      if (!file || (rules.by === 'student' && !isTheirs)) throw problems.notFound();
      if (!isTheirs) throw problems.notYours('A teammate added this file, so only they can delete it.');
      const isDeletedNow = file.deletedAt !== null;
      if (isDeleted === isDeletedNow) return this.view(entered, manager); // pressed twice
      await this.refuseSecond(manager, entered);
      if (isDeleted && rules.attempts === 'all' && (await this.handedInFiles(manager, entered)).has(fileId))
        throw problems.conflict(
          'This file is handed in, and every hand-in is kept here. Add a newer one beside it.',
        );
      if (!isDeleted) await this.refuseCount(manager, entered);
      await manager.update(WorkFileRow, { fileId }, { deletedAt: isDeleted ? now : null });
      await record({
        type: isDeleted ? 'file.deleted' : 'file.restored',
        facts: { fileId },
        ...this.about(person, entered),
      });
      return this.view(entered, manager);
    });
  }

  /** Freezes what is there. `attempt` is the one the person had in view: two members who press at once hand in once. */
  async handIn(person: SignedIn, copyId: CopyId, { attempt }: HandInRequest): Promise<WorkView> {
    const entered = await this.enterTo('hand-in', person, copyId);
    const { access, rules } = entered;
    const ownerId = ownerOf(entered);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await lockCopy(manager, copyId); // hand-ins of one copy take turns
      const next = (await manager.countBy(HandInRow, { copyId, ownerId: ownerId ?? IsNull() })) + 1;
      if (attempt !== next)
        throw problems.staleWrite(
          await this.view(entered, manager),
          ownerId
            ? 'This was handed in a moment ago from another window. Look at what is handed in.'
            : 'A teammate handed in a moment ago. Look at what is handed in; hand in again if something is missing.',
        );
      await this.refuseSecond(manager, entered);
      const parts = await manager.find(PartRow, {
        where: { copyId, ...(ownerId ? { enrolmentId: ownerId } : {}) },
        order: { createdAt: 'ASC' },
      });
      const files = await this.filesIn(manager, entered);
      const before =
        rules.attempts === 'all' ? await this.handedInFiles(manager, entered) : new Set<string>();
      const fileIds = files.map((file) => file.fileId).filter((id) => !before.has(id));
      const written = parts.filter((part) => part.words > 0);
      if (written.length === 0 && fileIds.length === 0)
        throw problems.invalidInput(nothingYet(rules, before.size > 0));

      const handInId = newId<'hand-in'>();
      await manager.insert(HandInRow, {
        id: handInId,
        copyId,
        ownerId,
        attempt,
        handedInBy: access.viewer.enrolmentId,
        // When it was sent, not when its turn came.
        handedInAt: arrivalOfRequest() ?? now,
        parts: json(
          written.map((part) => ({ enrolmentId: part.enrolmentId, text: part.text, words: part.words })),
        ) as object[],
        fileIds,
      });
      const credited = ownerId ? [ownerId] : (await membersOfCopies(manager, [access]))(copyId);
      await manager.insert(
        CreditRow,
        credited.map((enrolmentId) => ({ handInId, enrolmentId })),
      );
      await record({
        type: 'handed-in',
        facts: { attempt, files: fileIds.length, credited: credited.length },
        ...this.about(person, entered),
      });
      return this.view(entered, manager);
    });
  }

  async file(
    person: SignedIn,
    copyId: CopyId,
    fileId: FileId,
  ): Promise<{ file: FileRow; chunks: AsyncGenerator<Buffer> }> {
    const { access, rules } = await this.enter(person, copyId);
    if (!(await isThereFor(this.dataSource.manager, access, rules, fileId))) throw problems.notFound();
    const [file] = await this.files.named(this.dataSource.manager, [fileId]);
    assert(file, 'a file of someone’s work is kept');
    return { file, chunks: this.files.chunksOf(file) };
  }

  private async keepFile(
    person: SignedIn,
    copyId: CopyId,
    upload: Upload,
    arrived: Arrived,
  ): Promise<WorkView> {
    const entered = await this.enterTo('work', person, copyId); // a long upload: they may have been moved, or it may have closed, meanwhile
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await lockCopy(manager, copyId);
      await this.refuseSecond(manager, entered);
      await this.refuseFile(manager, entered, {
        name: upload.name,
        sizeBytes: arrived.sizeBytes,
        found: arrived.found,
      });
      const file = await this.files.keep(manager, arrived, upload.name, upload.mediaType);
      await manager.insert(WorkFileRow, {
        fileId: file.id,
        copyId,
        addedBy: entered.access.viewer.enrolmentId,
        addedAt: now,
        deletedAt: null,
      });
      await record({
        type: 'file.added',
        facts: { fileId: file.id, sizeBytes: arrived.sizeBytes },
        ...this.about(person, entered),
      });
      return this.view(entered, manager);
    });
  }

  private async refuseFile(manager: EntityManager, entered: Entered, file: OfferedFile): Promise<void> {
    const refusal = checkFile(file, (await this.filesIn(manager, entered)).length, entered.rules);
    if (!refusal) return;
    const sentence = sayFileRefusal(refusal);
    throw refusal.code === 'too-large' ? problems.tooLarge(sentence) : problems.invalidInput(sentence);
  }

  private async refuseCount(manager: EntityManager, entered: Entered): Promise<void> {
    const { mostFiles } = entered.rules;
    if ((await this.filesIn(manager, entered)).length >= mostFiles)
      throw problems.conflict(sayFileRefusal({ code: 'too-many', most: mostFiles }));
  }

  /** Where one hand-in is taken, what is in stays as it is. */
  private async refuseSecond(manager: EntityManager, entered: Entered): Promise<void> {
    if (entered.rules.attempts !== 'one') return;
    if (
      await manager.existsBy(HandInRow, {
        copyId: entered.access.copy.id,
        ownerId: ownerOf(entered) ?? IsNull(),
      })
    )
      throw problems.conflict(
        'You can hand in only once here, and it is handed in. Ask your instructor if something is missing.',
      );
  }

  private filesIn(manager: EntityManager, entered: Entered): Promise<WorkFileRow[]> {
    const ownerId = ownerOf(entered);
    return manager.find(WorkFileRow, {
      where: {
        copyId: entered.access.copy.id,
        deletedAt: IsNull(),
        ...(ownerId ? { addedBy: ownerId } : {}),
      },
      order: { addedAt: 'ASC' },
    });
  }

  private async handedInFiles(manager: EntityManager, entered: Entered): Promise<Set<string>> {
    const handIns = await manager.findBy(HandInRow, {
      copyId: In([entered.access.copy.id]),
      ownerId: ownerOf(entered) ?? IsNull(),
    });
    return new Set(handIns.flatMap((handIn) => handIn.fileIds));
  }

  private async enter(person: SignedIn, copyId: CopyId): Promise<Entered> {
    const access = await this.gate.enter(person, copyId);
    const rules = this.kinds.rulesFor(access);
    if (!rules) throw problems.notFound();
    return { access, rules };
  }

  private async enterTo(act: HandInAct, person: SignedIn, copyId: CopyId): Promise<Entered> {
    const entered = await this.enter(person, copyId);
    const { decision } = entered.access;
    if (mayAct(handInActs, act, decision)) return entered;
    if (decision.part === 'member') throw problems.closed();
    throw problems.notYours('This is the group’s own work. Only its members write in it.');
  }

  private view({ access, rules }: Entered, manager?: EntityManager): Promise<WorkView> {
    return this.work.read(access, rules, manager);
  }

  private about(person: SignedIn, { access, rules }: Entered) {
    return {
      courseId: access.release.courseId,
      actorId: person.id,
      subjectId: access.copy.id,
      ...hearersOf(access, ownerOf({ access, rules })),
    };
  }
}

const ownerOf = ({ access, rules }: Entered): EnrolmentId | null =>
  rules.by === 'student' ? access.viewer.enrolmentId : null;

function nothingYet(rules: HandInRules, hasEarlier: boolean): string {
  if (hasEarlier) return 'There is nothing new to hand in. Add a file first.';
  return rules.takesText
    ? 'There is nothing to hand in yet. Write something or add a file.'
    : 'There is nothing to hand in yet. Add a file.';
}
