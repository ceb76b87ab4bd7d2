import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { Done } from '@jigsaw/contract/common';
import type { RecipientChoice, SendingLine, SendingView, SendMessage, Sent } from '@jigsaw/contract/messages';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, MessageId, SendingId, ThreadId } from '@jigsaw/core/ids';
import { only, sure } from '@jigsaw/core/lists';
import { fillIn } from '@jigsaw/core/messages';
import { counted } from '@jigsaw/core/text';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { practiceRoundOf } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { hearersIn } from './hearing.js';
import { MessageMail } from './messageMail.js';
import { SendingRow } from './messages.rows.js';
import { peopleIn, readable } from './reading.js';
import type { Addressed } from './recipients.service.js';
import { RecipientsService } from './recipients.service.js';

/** A thread as it begins, and its first message. */
interface Begun {
  readonly id: ThreadId;
  readonly messageId: MessageId;
  readonly withId: EnrolmentId | null;
  readonly groupId: GroupId | null;
  readonly subject: string;
  readonly text: string;
}

/** A message that goes out, to one or to many, each in a thread of their own. */
@Injectable()
export class SendingService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly recipients: RecipientsService,
    private readonly mail: MessageMail,
  ) {}

  async choice(person: SignedIn, courseId: CourseId): Promise<RecipientChoice> {
    const viewer = await this.viewers.enter(person, courseId);
    if (practiceRoundOf(person) !== null) return { everyone: null, hasStaff: false, sets: [], audiences: [] };
    return this.recipients.choice(this.dataSource.manager, viewer);
  }

  /** Sent twice it goes out once.
   * @throws conflict where it would reach another number than was shown. */
  async send(person: SignedIn, courseId: CourseId, message: SendMessage): Promise<Sent> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const viewer = await this.viewers.enter(person, courseId);
      if (practiceRoundOf(person) !== null) throw problems.notFound();
      const { id, to, subject, text, count } = message;
      const before = await sentBefore(manager, viewer, message);
      if (before) return before;
      const addressed = await this.recipients.resolve(manager, viewer, to);
      refuseUnlessShown(addressed, count);
      const kind = sure(addressed[0]).groupId === null ? 'people' : 'groups';
      const written = await manager.query<unknown[]>(
        `INSERT INTO "message_sending" ("id", "courseId", "by", "at", "subject", "text", "to", "kind", "count")
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) ON CONFLICT DO NOTHING RETURNING "id"`,
        [id, courseId, viewer.enrolmentId, now, subject, text, to, kind, count],
      );
      if (written.length === 0) return sure(await sentBefore(manager, viewer, message)); // it was sent twice at once
      const begun = addressed.map((each) => begin(message, each, count === 1));
      await this.write(work, viewer, begun, count === 1 ? null : id);
      await this.tell(work, person, viewer, begun);
      return { id, threadId: count === 1 ? sure(begun[0]).id : null, count };
    });
  }

  /** One that went to many, and who replied. */
  async read(person: SignedIn, sendingId: SendingId): Promise<SendingView> {
    const { manager } = this.dataSource;
    const { sending, viewer } = await this.enter(manager, person, sendingId);
    if (sending.removedAt) throw problems.notFound();
    const { sql, parameters } = readable(viewer);
    const threads = await manager.query<{ id: ThreadId; withId: EnrolmentId | null; groupId: GroupId | null; hasReplied: boolean }[]>(
      `SELECT t."id", t."withId", t."groupId",
              EXISTS (SELECT 1 FROM "message" m WHERE m."threadId" = t."id" AND NOT m."isByStaff" AND m."removedAt" IS NULL) AS "hasReplied"
         FROM "message_thread" t LEFT JOIN "author" w ON w."enrolmentId" = t."withId" LEFT JOIN "set_group" g ON g."groupId" = t."groupId"
        WHERE ${sql} AND t."sendingId" = $4 ORDER BY g."setPosition", g."number", w."name", t."id"`,
      [...parameters, sendingId],
    ); // prettier-ignore
    const { withOf, author } = await peopleIn(manager, viewer, threads, [sending.by]);
    const [line] = await this.lines(manager, viewer, [sendingId]);
    return {
      ...sure(line),
      by: author(sending.by),
      text: sending.text,
      threads: threads.map((thread) => ({
        id: thread.id,
        with: withOf(thread),
        hasReplied: thread.hasReplied,
      })),
    };
  }

  /** Those that went to many: one's own, and to an instructor everyone's; the newest first. */
  async lines(
    manager: EntityManager,
    viewer: Viewer,
    only: readonly SendingId[] | null = null,
  ): Promise<SendingLine[]> {
    if (!may(viewer.role, 'write-to-people')) return [];
    const rows = await manager.query<(Omit<SendingLine, 'by' | 'at'> & { by: EnrolmentId; at: Date })[]>(
      `SELECT x."id", x."subject", x."at", x."by", x."kind", x."count",
              (SELECT count(DISTINCT m."threadId")::int FROM "message_thread" t JOIN "message" m ON m."threadId" = t."id"
                WHERE t."sendingId" = x."id" AND NOT m."isByStaff" AND m."removedAt" IS NULL) AS "replied"
         FROM "message_sending" x
        WHERE x."courseId" = $1 AND x."removedAt" IS NULL AND x."count" > 1 AND ($2 OR x."by" = $3) AND ($4::uuid[] IS NULL OR x."id" = ANY($4))
        ORDER BY x."at" DESC, x."id" DESC LIMIT 200`,
      [viewer.courseId, viewer.role === 'instructor', viewer.enrolmentId, only],
    );
    const { author } = await peopleIn(manager, viewer, [], rows.map(({ by }) => by)); // prettier-ignore
    return rows.map((row) => ({ ...row, by: author(row.by), at: row.at.toISOString() }));
  }

  /** Its writer, or an instructor, takes it out of all threads, and puts it there again. */
  async remove(person: SignedIn, sendingId: SendingId, isRemoved: boolean): Promise<Done> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now, record } = work;
      const { sending, viewer } = await this.enter(manager, person, sendingId);
      if (isRemoved === (sending.removedAt !== null)) return { done: true };
      await manager.update(SendingRow, sendingId, { removedAt: isRemoved ? now : null });
      const threads = await manager.query<{ id: ThreadId; withId: EnrolmentId | null; groupId: GroupId | null; startedBy: EnrolmentId }[]>(
        `WITH changed AS (UPDATE "message" m SET "removedAt" = $2, "removedBy" = $3 FROM "message_thread" t
                           WHERE t."sendingId" = $1 AND m."threadId" = t."id" AND m."number" = 1 RETURNING t."id")
         SELECT t."id", t."withId", t."groupId", t."startedBy" FROM "message_thread" t JOIN changed c ON c."id" = t."id"`,
        [sendingId, isRemoved ? now : null, isRemoved ? viewer.enrolmentId : null],
      ); // prettier-ignore
      const hearers = await hearersIn(manager, this.viewers, viewer.courseId);
      const heard = new Set(
        threads.flatMap((thread) => [...hearers(thread).students, ...hearers(thread).staff]),
      );
      await record({
        type: isRemoved ? 'message.removed' : 'message.restored',
        courseId: viewer.courseId,
        actorId: person.id,
        subjectId: sendingId,
        enrolmentIds: [...heard],
        staff: null,
      });
      return { done: true };
    });
  }

  private async enter(
    manager: EntityManager,
    person: SignedIn,
    sendingId: SendingId,
  ): Promise<{ readonly sending: SendingRow; readonly viewer: Viewer }> {
    const sending = await manager.findOneBy(SendingRow, { id: sendingId });
    if (!sending) throw problems.notFound();
    const viewer = await this.viewers.enter(person, sending.courseId);
    const isTheirs = sending.by === viewer.enrolmentId || viewer.role === 'instructor';
    if (!may(viewer.role, 'write-to-people') || !isTheirs || sending.count === 1) throw problems.notFound();
    return { sending, viewer };
  }

  private async write(
    { manager, now }: Work,
    viewer: Viewer,
    begun: readonly Begun[],
    sendingId: SendingId | null,
  ): Promise<void> {
    const rows = JSON.stringify(begun);
    await manager.query(
      `INSERT INTO "message_thread" ("id", "courseId", "subject", "withId", "groupId", "startedBy", "sendingId", "lastNumber", "lastAt")
       SELECT x."id", $2, x."subject", x."withId", x."groupId", $3, $4, 1, $5
         FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "subject" text, "withId" uuid, "groupId" uuid)`,
      [rows, viewer.courseId, viewer.enrolmentId, sendingId, now],
    );
    await manager.query(
      `INSERT INTO "message" ("id", "threadId", "number", "authorId", "isByStaff", "at", "text")
       SELECT x."messageId", x."id", 1, $2, $3, $4, x."text"
         FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "messageId" uuid, "text" text)`,
      [rows, viewer.enrolmentId, viewer.role !== 'student', now],
    );
  }

  private async tell(work: Work, person: SignedIn, viewer: Viewer, begun: readonly Begun[]): Promise<void> {
    const { manager, record } = work;
    const { courseId, enrolmentId: startedBy } = viewer;
    const hearers = await hearersIn(manager, this.viewers, courseId);
    const threads = begun.map((thread) => ({
      ...thread,
      startedBy,
      hearers: hearers({ ...thread, startedBy }),
    }));
    await this.mail.post(work, person, viewer, threads.map((thread) => ({
      threadId: thread.id,
      subject: thread.subject,
      text: thread.text,
      // Staff are written to where a student writes to them; what goes to a group is read in it.
      to: viewer.role === 'student' && thread.withId !== null ? thread.hearers.staff : [...thread.hearers.students, ...thread.hearers.staff.filter((id) => id === thread.withId)],
    }))); // prettier-ignore
    const { groupId } = sure(begun[0]);
    await record({
      type: 'message.sent',
      courseId,
      actorId: person.id,
      subjectId: sure(begun[0]).id,
      facts: { to: begun.length, ...(begun.length === 1 && groupId !== null && { groupId }) },
      enrolmentIds: [
        ...new Set(threads.flatMap(({ hearers: { students, staff } }) => [...students, ...staff])),
      ],
      staff: null,
    });
  }
}

/** @param isOnly its thread and its message are called as the page called it. */
function begin({ id, subject, text }: SendMessage, addressed: Addressed, isOnly: boolean): Begun {
  const { withId, groupId } = addressed;
  return {
    id: isOnly ? (id as string as ThreadId) : newId<'thread'>(),
    messageId: isOnly ? (id as string as MessageId) : newId<'message'>(),
    withId,
    groupId,
    subject: addressed.names.length === 0 ? subject : fillIn(subject, addressed),
    text: addressed.names.length === 0 ? text : fillIn(text, addressed),
  };
}

/** What was answered when it was sent before; null: it is new.
 * @throws conflict where it was changed since: what went out is not what is sent now. */
async function sentBefore(
  manager: EntityManager,
  viewer: Viewer,
  message: SendMessage,
): Promise<Sent | null> {
  const { id, ...now } = message;
  const row = await manager.findOneBy(SendingRow, { id });
  if (!row) return null;
  if (row.by !== viewer.enrolmentId) throw problems.conflict('Send this message again.');
  if (!isDeepStrictEqual(only(row, ['to', 'subject', 'text', 'count']), now))
    throw problems.conflict(
      'This was sent already, before you changed it. Find it under Messages, and write a new one if you need to.',
    );
  return { id, threadId: row.count === 1 ? (id as string as ThreadId) : null, count: row.count };
}

function refuseUnlessShown(addressed: readonly Addressed[], count: number): void {
  if (addressed.length === count) return;
  const [first] = addressed;
  if (!first)
    throw problems.conflict('No one gets this now: they have left meanwhile. Choose who to write to again.');
  const now = first.groupId === null ? counted(addressed.length, 'person', 'people') : counted(addressed.length, 'group'); // prettier-ignore
  throw problems.conflict(`This would reach ${now} now, not ${count}. Look at who gets it, then send it again.`); // prettier-ignore
}
