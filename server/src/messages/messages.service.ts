import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { Done } from '@jigsaw/contract/common';
import type {
  MarkSeenMessages,
  MessageList,
  Replied,
  Reply,
  ThreadLine,
  ThreadView,
} from '@jigsaw/contract/messages';
import type { MessageCount } from '@jigsaw/contract/track';
import type { ActType } from '@jigsaw/core/audit';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, MessageId, ThreadId } from '@jigsaw/core/ids';
import { only, sure } from '@jigsaw/core/lists';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { practiceRoundOf } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { hearersIn } from './hearing.js';
import { MessageMail } from './messageMail.js';
import { MessageRow, ThreadRow } from './messages.rows.js';
import { isNewTo, peopleIn, readable } from './reading.js';
import { SendingService } from './sending.service.js';

interface Found {
  readonly id: ThreadId;
  readonly withId: EnrolmentId | null;
  readonly groupId: GroupId | null;
  readonly subject: string;
  readonly by: EnrolmentId;
  readonly isByStaff: boolean;
  readonly at: Date;
  readonly excerpt: string;
  readonly unread: number;
}

/** Someone at a thread that they read. */
interface AtThread {
  readonly thread: ThreadRow;
  readonly viewer: Viewer;
}

/** What people of a course write to one another beside their work: a student, or a group, and staff. */
@Injectable()
export class MessagesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly sending: SendingService,
    private readonly mail: MessageMail,
  ) {}

  /** @param most of the threads. */
  async list(person: SignedIn, courseId: CourseId, most: number): Promise<MessageList> {
    const { manager } = this.dataSource;
    const viewer = await this.viewers.enter(person, courseId);
    // Who practises is a member for trying out; what is written to the members is theirs.
    if (practiceRoundOf(person) !== null) return { threads: [], hasMore: false, sendings: [] };
    const threads = await this.lines(manager, viewer, most + 1);
    return {
      threads: threads.slice(0, most),
      hasMore: threads.length > most,
      sendings: await this.sending.lines(manager, viewer),
    };
  }

  /** How many threads have something new. */
  async count(person: SignedIn, courseId: CourseId): Promise<MessageCount> {
    const viewer = await this.viewers.enter(person, courseId);
    if (practiceRoundOf(person) !== null) return { unread: 0 };
    const { sql, parameters } = readable(viewer);
    const [row] = await this.dataSource.query<{ unread: number }[]>(
      `SELECT count(DISTINCT t."id")::int AS "unread"
         FROM "message_thread" t JOIN "message" m ON m."threadId" = t."id" WHERE ${sql} AND ${isNewTo(viewer)}`,
      [...parameters],
    );
    return sure(row);
  }

  async read(person: SignedIn, threadId: ThreadId): Promise<ThreadView> {
    const { manager } = this.dataSource;
    const view = await this.view(manager, await this.enter(manager, person, threadId));
    if (view.messages.length === 0) throw problems.notFound();
    return view;
  }

  /** Sent twice it is written once. */
  async reply(person: SignedIn, threadId: ThreadId, { id, text }: Reply): Promise<Replied> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const at = await this.enter(manager, person, threadId, true);
      const { thread, viewer } = at;
      const before = await manager.findOneBy(MessageRow, { id });
      if (
        before &&
        (before.threadId !== threadId || before.authorId !== viewer.enrolmentId || before.removedAt)
      )
        throw problems.conflict('This message was removed meanwhile. Restore it, or write a new one.');
      if (before && before.text !== text)
        throw problems.conflict('An earlier text of this was sent already and stands above. Press again to send this one as well.'); // prettier-ignore
      if (before) return this.replied(manager, at, id);
      const number = thread.lastNumber + 1;
      const isByStaff = viewer.role !== 'student';
      await manager.insert(MessageRow, {
        id,
        threadId,
        number,
        authorId: viewer.enrolmentId,
        isByStaff,
        at: now,
        text,
      });
      await manager.update(ThreadRow, threadId, { lastNumber: number, lastAt: now });
      await this.markUpTo(manager, at, number);
      await this.tell(work, person, at, { type: 'message.sent', mails: text });
      return this.replied(manager, at, id);
    });
  }

  /** Told late, or by an older page, it takes nothing back. */
  async markSeen(person: SignedIn, threadId: ThreadId, { upTo }: MarkSeenMessages): Promise<Done> {
    const { manager } = this.dataSource;
    const at = await this.enter(manager, person, threadId);
    await this.markUpTo(manager, at, Math.min(upTo, at.thread.lastNumber));
    return { done: true };
  }

  /** Its author, or an instructor, removes a message; who removed it, or an instructor, restores it. */
  async remove(person: SignedIn, messageId: MessageId, isRemoved: boolean): Promise<ThreadView> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const found = await manager.findOneBy(MessageRow, { id: messageId });
      if (!found) throw problems.notFound();
      const at = await this.enter(manager, person, found.threadId, true);
      const message = await manager.findOneByOrFail(MessageRow, { id: messageId });
      const { viewer } = at;
      if (!mayRemove(viewer, message.removedBy ?? message.authorId))
        // What others removed is not told to those who cannot restore it.
        throw message.removedAt ? problems.notFound() : problems.notYours('Its author removes a message, or an instructor.'); // prettier-ignore
      if (isRemoved !== (message.removedAt !== null)) {
        const removed = isRemoved ? { removedAt: now, removedBy: viewer.enrolmentId } : { removedAt: null, removedBy: null }; // prettier-ignore
        await manager.update(MessageRow, messageId, removed);
        await this.tell(work, person, at, {
          type: isRemoved ? 'message.removed' : 'message.restored',
          mails: null,
        });
      }
      return this.view(manager, at);
    });
  }

  private async lines(manager: EntityManager, viewer: Viewer, most: number): Promise<ThreadLine[]> {
    const isStaff = viewer.role !== 'student';
    const { sql, parameters } = readable(viewer);
    // To staff, one that went to many is one line until someone replies.
    const rows = await manager.query<Found[]>(
      `SELECT t."id", t."withId", t."groupId", t."subject", l."authorId" AS "by", l."isByStaff", l."at", l."excerpt",
              (SELECT count(*)::int FROM "message" m WHERE m."threadId" = t."id" AND ${isNewTo(viewer)}) AS "unread"
         FROM "message_thread" t
         JOIN LATERAL (SELECT "authorId", "isByStaff", "at", left("text", 200) AS "excerpt" FROM "message"
                        WHERE "threadId" = t."id" AND "removedAt" IS NULL ORDER BY "number" DESC LIMIT 1) l ON true
        WHERE ${sql} AND (NOT $4 OR t."sendingId" IS NULL OR t."lastNumber" > 1 OR t."withId" = $2)
        ORDER BY t."lastAt" DESC, t."id" DESC LIMIT $5`,
      [...parameters, isStaff, most],
    );
    const { withOf, author } = await peopleIn(manager, viewer, rows, rows.map(({ by }) => by)); // prettier-ignore
    return rows.map((row) => ({
      id: row.id,
      with: withOf(row),
      subject: row.subject,
      last: { by: author(row.by), at: row.at.toISOString(), excerpt: row.excerpt },
      unread: row.unread,
      awaitsReply: isStaff && !row.isByStaff,
    }));
  }

  private async replied(manager: EntityManager, at: AtThread, id: MessageId): Promise<Replied> {
    const { messages } = await this.view(manager, at);
    return only(sure(messages.find((message) => message.id === id)), ['id', 'by', 'at', 'text', 'isNew', 'mayRemove']); // prettier-ignore
  }

  private async view(manager: EntityManager, { thread, viewer }: AtThread): Promise<ThreadView> {
    const rows = await manager.query<(MessageRow & { isNew: boolean })[]>(
      `SELECT m.*, (${isNewTo(viewer)}) AS "isNew" FROM "message_thread" t JOIN "message" m ON m."threadId" = t."id"
        WHERE t."id" = $1 AND m."removedAt" IS NULL ORDER BY m."number"`,
      [thread.id, viewer.enrolmentId],
    );
    const { withOf, author } = await peopleIn(manager, viewer, [thread], rows.map(({ authorId }) => authorId)); // prettier-ignore
    const members = thread.groupId === null ? [] : await manager.query<{ name: string }[]>(
      `SELECT p."name" FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId" WHERE s."groupId" = $1 ORDER BY p."name"`,
      [thread.groupId],
    ); // prettier-ignore
    return {
      id: thread.id,
      courseId: thread.courseId,
      with: withOf(thread),
      subject: thread.subject,
      sendingId: may(viewer.role, 'write-to-people') ? thread.sendingId : null,
      members: members.map(({ name }) => name),
      messages: rows.map(({ id, number, authorId, at, text, isNew }) => ({
        id,
        number,
        by: author(authorId),
        at: at.toISOString(),
        text,
        isNew,
        mayRemove: mayRemove(viewer, authorId),
      })),
    };
  }

  /** @param isToChange no one else changes it meanwhile.
   * @throws not-found for a thread that is not theirs to read, as for one that is not there. */
  private async enter(
    manager: EntityManager,
    person: SignedIn,
    threadId: ThreadId,
    isToChange = false,
  ): Promise<AtThread> {
    const lock = isToChange ? { lock: { mode: 'pessimistic_write' } as const } : {};
    const thread = await manager.findOne(ThreadRow, { where: { id: threadId }, ...lock });
    if (!thread || practiceRoundOf(person) !== null) throw problems.notFound();
    const viewer = await this.viewers.enter(person, thread.courseId);
    const { sql, parameters } = readable(viewer);
    const found = await manager.query<unknown[]>(`SELECT 1 FROM "message_thread" t WHERE ${sql} AND t."id" = $4`, [...parameters, threadId]); // prettier-ignore
    if (found.length === 0) throw problems.notFound();
    return { thread, viewer };
  }

  private async markUpTo(manager: EntityManager, { thread, viewer }: AtThread, upTo: number): Promise<void> {
    await manager.query(
      `INSERT INTO "message_seen" ("threadId", "enrolmentId", "upTo") VALUES ($1, $2, $3)
       ON CONFLICT ("threadId", "enrolmentId") DO UPDATE SET "upTo" = GREATEST("message_seen"."upTo", EXCLUDED."upTo")`,
      [thread.id, viewer.enrolmentId, upTo],
    );
  }

  /** @param mails what goes out by mail: to the members, and from a student to those of the staff who wrote in it, or to all who read it. */
  private async tell(
    work: Work,
    person: SignedIn,
    { thread, viewer }: AtThread,
    { type, mails }: { readonly type: ActType; readonly mails: string | null },
  ): Promise<void> {
    const { manager, record } = work;
    const { students, staff } = (await hearersIn(manager, this.viewers, thread.courseId))(thread);
    if (mails !== null) {
      const wrote = await manager.query<{ authorId: EnrolmentId }[]>(`SELECT DISTINCT "authorId" FROM "message" WHERE "threadId" = $1 AND "isByStaff"`, [thread.id]); // prettier-ignore
      const writers = staff.filter(
        (id) => wrote.some(({ authorId }) => authorId === id) || id === thread.withId,
      );
      const ofStaff = writers.length > 0 || thread.withId === null ? writers : staff;
      const to = viewer.role === 'student' ? [...students, ...ofStaff] : [...students, ...writers];
      const subject = `Re: ${thread.subject}`;
      await this.mail.post(work, person, viewer, [{ threadId: thread.id, subject, text: mails, to }]);
    }
    await record({
      type,
      courseId: thread.courseId,
      actorId: person.id,
      subjectId: thread.id,
      facts: thread.groupId === null ? {} : { groupId: thread.groupId },
      enrolmentIds: [...students, ...staff],
      staff: null,
    });
  }
}

const mayRemove = (viewer: Viewer, by: EnrolmentId) =>
  by === viewer.enrolmentId || may(viewer.role, 'manage-groups');
