import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { z } from 'zod';
import type {
  AddPost,
  ChangePost,
  DiscussionView,
  PostSaved,
  PostView,
  TalkChanges,
} from '@jigsaw/contract/discussion';
import { discussionRules, suggestedMark } from '@jigsaw/core/discussion';
import type { DiscussionAct } from '@jigsaw/core/discussion';
import type { CopyId, PostId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import type { Figure } from '@jigsaw/core/release';
import { mayAct, whoseFigures } from '@jigsaw/core/release';
import { plainText } from '@jigsaw/core/text';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { News } from '../rooms/index.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { Texts } from '../platform/texts.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, hearersOf, membersOfCopies, plainDecimal } from '../release/index.js';
import { DiscussionKind } from './discussion.kind.js';
import { PostRow } from './discussion.rows.js';
import { Talks } from './talks.js';
import { isShown, lockPost, momentOf, nextTurn } from './posts.js';

const threadsAPage = 60;

@Injectable()
export class DiscussionService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly texts: Texts,
    private readonly gate: Gate,
    private readonly kind: DiscussionKind,
    private readonly talks: Talks,
    private readonly news: News,
  ) {}

  /** Threads as they were begun, each with all its posts; `after` a thread, the next page of them. */
  async read(person: SignedIn, copyId: CopyId, after: PostId | null): Promise<DiscussionView> {
    const access = await this.enter(person, copyId);
    const { manager } = this.dataSource;
    // From before the look: what is written between the two is told again rather than not at all.
    const asOf = await momentOf(manager, copyId);
    const rows = await manager.query<{ id: PostId }[]>(
      `SELECT t."id" FROM "post" t WHERE t."copyId" = $1 AND t."parentId" IS NULL
          AND EXISTS (SELECT 1 FROM "post" p WHERE p."threadId" = t."id" AND (p."deletedAt" IS NULL OR p."deletedBy" = $4))
          AND ($2::uuid IS NULL OR (t."createdAt", t."id") > (SELECT "createdAt", "id" FROM "post" WHERE "id" = $2 AND "copyId" = $1))
        ORDER BY t."createdAt", t."id" LIMIT $3`,
      [copyId, after, threadsAPage + 1, access.viewer.enrolmentId],
    );
    const page = rows.slice(0, threadsAPage).map((row) => row.id);
    return {
      threads: await this.threadsOf(access, page),
      asOf,
      next: rows.length > threadsAPage ? sure(page.at(-1)) : null,
      mayOpenThread: this.may(access, 'open-thread'),
      mayReply: this.may(access, 'reply'),
      met: await this.metOf(access, manager),
    };
  }

  /** Only the threads of posts to which something happened since. Acts in one copy take turns, so that none is kept before one of an earlier turn is. */
  async changes(person: SignedIn, copyId: CopyId, since: number): Promise<TalkChanges> {
    const access = await this.enter(person, copyId);
    const { manager } = this.dataSource;
    const asOf = await momentOf(manager, copyId);
    const rows = await manager.query<{ id: PostId }[]>(
      `SELECT "id" FROM "post" WHERE "copyId" = $1 AND "id" IN (
         SELECT p."threadId" FROM "post" p WHERE p."copyId" = $1 AND p."turn" > $2)
        ORDER BY "createdAt", "id" LIMIT $3`,
      [copyId, since, threadsAPage + 1],
    );
    const threads =
      rows.length > threadsAPage
        ? null
        : await this.threadsOf(
            access,
            rows.map((row) => row.id),
          );
    return { asOf, threads, met: await this.metOf(access, manager) };
  }

  private async threadsOf(access: CopyAccess, ids: readonly PostId[]): Promise<DiscussionView['threads']> {
    const { manager } = this.dataSource;
    const posts = await manager
      .createQueryBuilder(PostRow, 'post')
      .where('post."threadId" = ANY(:ids)', { ids })
      .orderBy('post."createdAt"', 'ASC')
      .addOrderBy('post."id"', 'ASC')
      .getMany();
    const newIds = await this.news.newOf(access);
    const authors = await authorsById(
      manager,
      posts.map((post) => post.authorId),
      access.viewer.enrolmentId,
    );
    const ofThread = groupedBy(posts, (post) => post.threadId);
    return ids.map((id) => {
      const all = ofThread.get(id) ?? [];
      return {
        id,
        posts: all
          .filter((post) => isShown(post, all, access))
          .map((post) => this.viewOf(access, post, authors, newIds.has(post.id))),
      };
    });
  }

  /** The page makes the id: a post that is sent twice stands there once. */
  async add(
    person: SignedIn,
    copyId: CopyId,
    { id, parentId, text }: z.output<typeof AddPost>,
  ): Promise<PostSaved> {
    const access = await this.enterTo(parentId === null ? 'open-thread' : 'reply', person, copyId);
    const plain = plainText(text);
    if (plain === '') throw problems.invalidInput('Write something first.');
    const words = await this.texts.words(person.id, plain);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const turn = await nextTurn(manager, copyId);
      const parent = parentId === null ? null : await manager.findOneBy(PostRow, { id: parentId, copyId });
      if (parentId !== null && !parent) throw problems.notFound();
      if (parent?.deletedAt)
        throw problems.conflict(
          'The post you reply to was deleted meanwhile. Your text is still here; write it as a new post.',
        );
      const { raw } = (await manager
        .createQueryBuilder()
        .insert()
        .into(PostRow)
        .values({
          id,
          copyId,
          threadId: parent?.threadId ?? id,
          parentId,
          authorId: access.viewer.enrolmentId,
          text: json(text),
          plain,
          words,
          version: 1,
          turn,
          createdAt: now,
          editedAt: null,
          deletedAt: null,
          deletedBy: null,
        })
        .orIgnore()
        .returning('id')
        .execute()) as { raw: unknown[] };
      const post = await manager.findOneBy(PostRow, { id, copyId, authorId: access.viewer.enrolmentId });
      if (!post) throw problems.invalidInput('This post was not saved. Send it again.'); // an id that is taken elsewhere says nothing of where
      if (raw.length > 0)
        await record({
          type: 'post.added',
          facts: { postId: id, words: post.words },
          ...about(person, access),
        });
      return this.one(manager, access, post);
    });
  }

  /** One's own post, in the version that one has in view. */
  async change(
    person: SignedIn,
    copyId: CopyId,
    postId: PostId,
    { text, version }: z.output<typeof ChangePost>,
  ): Promise<PostSaved> {
    const access = await this.enterTo('change-own', person, copyId);
    const plain = plainText(text);
    if (plain === '') throw problems.invalidInput('Write something, or delete the post.');
    const words = await this.texts.words(person.id, plain);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const turn = await nextTurn(manager, copyId);
      const post = await lockPost(manager, copyId, postId);
      if (post.deletedAt) throw problems.notFound();
      if (post.authorId !== access.viewer.enrolmentId)
        throw problems.notYours('Only the author can edit this.');
      if (post.version !== version)
        throw problems.staleWrite(
          await this.one(manager, access, post),
          'You edited this in another window. Both texts are here; choose one.',
        );
      await manager.update(PostRow, postId, {
        text: json(text),
        plain,
        words,
        version: version + 1,
        turn,
        editedAt: now,
      });
      await record({
        type: 'post.changed',
        facts: { postId, version: version + 1 },
        ...about(person, access),
      });
      return this.one(manager, access, await manager.findOneByOrFail(PostRow, { id: postId }));
    });
  }

  /** Its author, or staff, delete a post; the same person restores it. Replies to it stay. */
  async remove(person: SignedIn, copyId: CopyId, postId: PostId, isDeleted: boolean): Promise<PostSaved> {
    const access = await this.enter(person, copyId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const turn = await nextTurn(manager, copyId);
      const post = await lockPost(manager, copyId, postId);
      const you = access.viewer.enrolmentId;
      const isAuthor = post.authorId === you && this.may(access, 'change-own');
      const isStaff = this.may(access, 'take-out-any');
      if (post.deletedAt && post.deletedBy !== you && !isStaff) throw problems.notFound();
      if (!isAuthor && !isStaff)
        throw access.decision.part === 'member' && access.decision.access !== 'open'
          ? problems.closed()
          : problems.notYours('Only the author can delete this.');
      if (isDeleted === (post.deletedAt !== null)) return this.one(manager, access, post); // pressed twice
      await manager.update(PostRow, postId, {
        turn,
        deletedAt: isDeleted ? now : null,
        deletedBy: isDeleted ? you : null,
      });
      await record({
        type: isDeleted ? 'post.deleted' : 'post.restored',
        facts: { postId },
        ...about(person, access),
      });
      return this.one(manager, access, await manager.findOneByOrFail(PostRow, { id: postId }));
    });
  }

  private async metOf(access: CopyAccess, manager: EntityManager): Promise<DiscussionView['met']> {
    const { posts, replies } = this.talks.ruleOf(access);
    if (posts + replies === 0) return [];
    const members = (await membersOfCopies(manager, [access]))(access.copy.id);
    const whose = (figure: Figure) => whoseFigures(figure, access.decision.part, access.viewer.role);
    const seen = whose('what-each-did');
    if (seen === 'none') return [];
    const shown = seen === 'own' ? members.filter((id) => id === access.viewer.enrolmentId) : members;
    const rows = await manager
      .createQueryBuilder(PostRow, 'post')
      .where('post."copyId" = :copyId AND post."deletedAt" IS NULL AND post."authorId" = ANY(:shown)', {
        copyId: access.copy.id,
        shown,
      })
      .getMany();
    const member = await authorsById(manager, shown, access.viewer.enrolmentId);
    const { points } = access.activity;
    const ofAuthor = groupedBy(rows, (post) => post.authorId);
    return shown.map((id) => {
      const own = ofAuthor.get(id) ?? [];
      const met = this.kind.met(access, own, id);
      return {
        member: member(id),
        posts: met.posts,
        replies: met.replies,
        words: own.reduce((sum, post) => sum + post.words, 0),
        isComplete: met.isComplete,
        suggested:
          points === null || whose('suggested-marks') === 'none'
            ? null
            : suggestedMark(plainDecimal(points), met),
      };
    });
  }

  private async one(manager: EntityManager, access: CopyAccess, post: PostRow): Promise<PostSaved> {
    const authors = await authorsById(manager, [post.authorId], access.viewer.enrolmentId);
    return { ...this.viewOf(access, post, authors, false), met: await this.metOf(access, manager) };
  }

  private viewOf(
    access: CopyAccess,
    post: PostRow,
    author: Awaited<ReturnType<typeof authorsById>>,
    isNew: boolean,
  ): PostView {
    const you = access.viewer.enrolmentId;
    const isDeleted = post.deletedAt !== null;
    return {
      id: post.id,
      threadId: post.threadId,
      parentId: post.parentId,
      author: author(post.authorId),
      text: isDeleted ? null : post.text,
      words: isDeleted ? 0 : post.words,
      version: post.version,
      createdAt: post.createdAt.toISOString(),
      editedAt: post.editedAt?.toISOString() ?? null,
      deletedBy: !isDeleted
        ? null
        : post.deletedBy === you
          ? 'you'
          : post.deletedBy === post.authorId
            ? 'author'
            : 'staff',
      isNew,
      mayChange: !isDeleted && post.authorId === you && this.may(access, 'change-own'),
      mayDelete:
        (post.authorId === you && this.may(access, 'change-own')) || this.may(access, 'take-out-any'),
    };
  }

  private may(access: CopyAccess, act: DiscussionAct): boolean {
    return mayAct(discussionRules(this.talks.ruleOf(access)), act, access.decision);
  }

  private async enter(person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    if (!this.talks.isIn(access)) throw problems.notFound();
    return access;
  }

  private async enterTo(act: DiscussionAct, person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.enter(person, copyId);
    if (this.may(access, act)) return access;
    if (access.decision.part === 'member' && access.decision.access !== 'open') throw problems.closed();
    if (this.talks.ruleOf(access).isSilent && access.decision.part !== 'reader')
      throw problems.notYours('Replies are off here. Your text is still here; copy what you need.');
    throw act === 'open-thread' && access.decision.part === 'member'
      ? problems.notYours('Your instructor starts the threads here. Reply in one of them.')
      : problems.notYours('You may read along here, not write.');
  }
}

const about = (person: SignedIn, access: CopyAccess) => ({
  courseId: access.release.courseId,
  actorId: person.id,
  subjectId: access.copy.id,
  ...hearersOf(access),
});
