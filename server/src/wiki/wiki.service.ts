import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { z } from 'zod';
import type {
  AddPage,
  PageView,
  RevisionLine,
  RevisionView,
  SavePage,
  WikiView,
} from '@jigsaw/contract/wiki';
import type { CopyId, PageId, EnrolmentId } from '@jigsaw/core/ids';
import { mayAct, whoseFigures } from '@jigsaw/core/release';
import { emptyText, plainText } from '@jigsaw/core/text';
import type { WikiAct } from '@jigsaw/core/wiki';
import { wikiRules } from '@jigsaw/core/wiki';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { askerOf } from '../identity/index.js';
import { News } from '../rooms/index.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { Texts } from '../platform/texts.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, hearersOf } from '../release/index.js';
import { WikiKind } from './wiki.kind.js';
import { WikiPageRow, WikiRevisionRow } from './wiki.rows.js';

@Injectable()
export class WikiService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly texts: Texts,
    private readonly gate: Gate,
    private readonly kind: WikiKind,
    private readonly news: News,
  ) {}

  async read(person: SignedIn, copyId: CopyId): Promise<WikiView> {
    const access = await this.enter(person, copyId);
    const { manager } = this.dataSource;
    const pages = await manager.query<
      {
        id: PageId;
        title: string;
        words: number;
        revision: number;
        savedAt: Date;
        authorId: EnrolmentId;
        deletedAt: Date | null;
      }[]
    >(
      `SELECT p."id", r."title", r."words", p."revision", r."savedAt", r."authorId", p."deletedAt"
         FROM "wiki_page" p JOIN "wiki_revision" r ON r."pageId" = p."id" AND r."number" = p."revision"
        WHERE p."copyId" = $1 AND (p."deletedAt" IS NULL OR $2) ORDER BY p."createdAt", p."id"`,
      [copyId, seesDeleted(access)],
    );
    const { part } = access.decision;
    const writers =
      whoseFigures('share-of-the-text', part, access.viewer.role) === 'none'
        ? []
        : await this.kind.writers({ accesses: [access], manager });
    const author = await authorsById(
      manager,
      [...pages.map((page) => page.authorId), ...writers.map((writer) => writer.authorId)],
      access.viewer.enrolmentId,
    );
    const newIds = await this.news.newOf(access);
    return {
      pages: pages.map(({ id, title, words, revision, savedAt, authorId, deletedAt }) => ({
        id,
        title,
        words,
        revision,
        savedAt: savedAt.toISOString(),
        savedBy: author(authorId),
        isNew: newIds.has(id),
        isDeleted: deletedAt !== null,
      })),
      mayWrite: may(access, 'write'),
      writers: writers
        .filter((writer) => writer.isStudent)
        .map(({ authorId, revisions, added }) => ({ member: author(authorId), revisions, added }))
        .sort((a, b) => a.member.name.localeCompare(b.member.name)),
    };
  }

  async page(person: SignedIn, copyId: CopyId, pageId: PageId): Promise<PageView> {
    const access = await this.enter(person, copyId);
    const { manager } = this.dataSource;
    return this.pageView(manager, access, await pageFor(access, manager, pageId));
  }

  async revision(person: SignedIn, copyId: CopyId, pageId: PageId, number: number): Promise<RevisionView> {
    const access = await this.enter(person, copyId);
    const { manager } = this.dataSource;
    await pageFor(access, manager, pageId);
    const revision = await manager.findOneBy(WikiRevisionRow, { pageId, number });
    if (!revision) throw problems.notFound();
    const author = await authorsById(manager, [revision.authorId], access.viewer.enrolmentId);
    return { ...lineOf(revision, author), text: revision.text };
  }

  /** The page makes the id: a press that is sent twice makes one page. */
  async add(person: SignedIn, copyId: CopyId, { id, title }: AddPage): Promise<PageView> {
    const access = await this.enterTo('write', person, copyId);
    const by = access.viewer.enrolmentId;
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const { raw } = (await manager
        .createQueryBuilder()
        .insert()
        .into(WikiPageRow)
        .values({ id, copyId, revision: 1, createdBy: by, createdAt: now, deletedAt: null })
        .orIgnore()
        .returning('id')
        .execute()) as { raw: unknown[] };
      const page = await manager.findOneBy(WikiPageRow, { id, copyId, createdBy: by });
      if (!page) throw problems.invalidInput('This page was not created. Try again.'); // an id that is taken elsewhere says nothing of where
      if (raw.length > 0) {
        await manager.insert(WikiRevisionRow, {
          pageId: id,
          number: 1,
          title,
          text: json(emptyText),
          plain: '',
          words: 0,
          added: 0,
          removed: 0,
          authorId: by,
          savedAt: now,
        });
        await record({ type: 'page.added', facts: { pageId: id }, ...about(person, access) });
      }
      return this.pageView(manager, access, page);
    });
  }

  /** Each save is a revision with its author. One that began from an older revision is refused with the newest, and nothing is lost. */
  async save(
    person: SignedIn,
    copyId: CopyId,
    pageId: PageId,
    { title, text, basedOn }: z.output<typeof SavePage>,
  ): Promise<PageView> {
    const access = await this.enterTo('write', person, copyId);
    const plain = plainText(text);
    const words = await this.texts.words(person.id, plain);
    const { added, removed } = await this.changesSince(person, copyId, pageId, basedOn, plain);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.query('SELECT 1 FROM "wiki_page" WHERE "id" = $1 FOR UPDATE', [pageId]); // saves of one page take turns
      const page = await pageOf(manager, copyId, pageId);
      if (page.deletedAt)
        throw problems.conflict(
          'This page was deleted meanwhile. Restore it to save; your text is still here.',
        );
      if (page.revision !== basedOn)
        throw problems.staleWrite(
          await this.pageView(manager, access, page),
          'Someone saved this page while you wrote. Your text is still here; compare the two.',
        );
      const before = await manager.findOneByOrFail(WikiRevisionRow, { pageId, number: page.revision });
      if (before.title === title && isDeepStrictEqual(before.text, text))
        return this.pageView(manager, access, page); // nothing changed: no revision
      const number = page.revision + 1;
      const row = {
        pageId,
        number,
        title,
        text: json(text),
        plain,
        words,
        added,
        removed,
        authorId: access.viewer.enrolmentId,
        savedAt: now,
      };
      await manager.insert(WikiRevisionRow, row);
      await manager.update(WikiPageRow, pageId, { revision: number });
      await record({
        type: 'page.saved',
        facts: { pageId, number, added, removed },
        ...about(person, access),
      });
      return this.pageView(manager, access, { ...page, revision: number });
    });
  }

  /** From the revision that the text began from, which never changes; worked out before the page is held. */
  private async changesSince(
    person: SignedIn,
    copyId: CopyId,
    pageId: PageId,
    number: number,
    plain: string,
  ): Promise<{ added: number; removed: number }> {
    const { manager } = this.dataSource;
    await pageOf(manager, copyId, pageId);
    const before = await manager.findOneBy(WikiRevisionRow, { pageId, number });
    return this.texts.changes(askerOf(person), before?.plain ?? '', plain);
  }

  /** A page that is deleted keeps all its revisions and comes back with them. */
  async remove(person: SignedIn, copyId: CopyId, pageId: PageId, isDeleted: boolean): Promise<PageView> {
    const access = await this.enterTo('take-out', person, copyId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const page = await pageOf(manager, copyId, pageId);
      if (isDeleted === (page.deletedAt !== null)) return this.pageView(manager, access, page); // pressed twice
      const deletedAt = isDeleted ? now : null;
      await manager.update(WikiPageRow, pageId, { deletedAt });
      await record({
        type: isDeleted ? 'page.deleted' : 'page.restored',
        facts: { pageId },
        ...about(person, access),
      });
      return this.pageView(manager, access, { ...page, deletedAt });
    });
  }

  private async pageView(manager: EntityManager, access: CopyAccess, page: WikiPageRow): Promise<PageView> {
    const revisions = await manager.find(WikiRevisionRow, {
      select: {
        pageId: true,
        number: true,
        title: true,
        words: true,
        added: true,
        removed: true,
        authorId: true,
        savedAt: true,
      },
      where: { pageId: page.id },
      order: { number: 'DESC' },
    });
    const current = await manager.findOneByOrFail(WikiRevisionRow, {
      pageId: page.id,
      number: page.revision,
    });
    const author = await authorsById(
      manager,
      revisions.map((revision) => revision.authorId),
      access.viewer.enrolmentId,
    );
    return {
      id: page.id,
      title: current.title,
      text: current.text,
      words: current.words,
      revision: page.revision,
      savedAt: current.savedAt.toISOString(),
      savedBy: author(current.authorId),
      isDeleted: page.deletedAt !== null,
      mayWrite: may(access, 'write'),
      revisions: revisions.map((revision) => lineOf(revision, author)),
    };
  }

  private async enter(person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    if (access.activity.kind !== this.kind.name) throw problems.notFound();
    return access;
  }

  private async enterTo(act: WikiAct, person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.enter(person, copyId);
    if (may(access, act)) return access;
    throw access.decision.part === 'member'
      ? problems.closed()
      : problems.notYours('You may read along here, not write.');
  }
}

const may = (access: CopyAccess, act: WikiAct): boolean => mayAct(wikiRules, act, access.decision);

function lineOf(revision: WikiRevisionRow, author: Awaited<ReturnType<typeof authorsById>>): RevisionLine {
  const { number, title, savedAt, words, added, removed, authorId } = revision;
  return { number, title, author: author(authorId), savedAt: savedAt.toISOString(), words, added, removed };
}

async function pageOf(manager: EntityManager, copyId: CopyId, pageId: PageId): Promise<WikiPageRow> {
  const page = await manager.findOneBy(WikiPageRow, { id: pageId, copyId });
  if (!page) throw problems.notFound();
  return page;
}

/** Who only reads has nothing to restored: what was deleted is gone for them, with all its revisions. */
const seesDeleted = ({ decision }: CopyAccess): boolean => decision.part !== 'reader';

async function pageFor(access: CopyAccess, manager: EntityManager, pageId: PageId): Promise<WikiPageRow> {
  const page = await pageOf(manager, access.copy.id, pageId);
  if (page.deletedAt !== null && !seesDeleted(access)) throw problems.notFound();
  return page;
}

const about = (person: SignedIn, access: CopyAccess) => ({
  courseId: access.release.courseId,
  actorId: person.id,
  subjectId: access.copy.id,
  ...hearersOf(access),
});
