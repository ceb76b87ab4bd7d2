import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { Invited, InviteRequest, MessageRequest, Outbox, Written } from '@jigsaw/contract/mail';
import type { ChooseKind, RosterAttributes, RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { CourseView } from '@jigsaw/contract/course';
import type { CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { invitation, message } from '@jigsaw/core/mail';
import { sortName } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { PeopleService } from '../identity/index.js';
import { MailService } from '../mail/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { attributesOf, chooseKind } from './attributes.js';
import { writeBundle, writeCsv } from './classFile.js';
import { CourseRow } from './roster.rows.js';
import { Viewers } from './viewers.js';

type Stored = Omit<RosterEntry, 'joinedAt' | 'leftAt' | 'lastSeenAt' | 'invitedAt' | 'groups'> & {
  joinedAt: Date;
  leftAt: Date | null;
  lastSeenAt: Date | null;
  invitedAt: Date | null;
  groups: RosterEntry['groups'] | null;
};

@Injectable()
export class RosterService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly people: PeopleService,
    private readonly clock: Clock,
    private readonly unitOfWork: UnitOfWork,
    private readonly mail: MailService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Everybody in the course with the group they have in every set; one query, whatever the size of the class. */
  async read(person: SignedIn, courseId: CourseId): Promise<RosterView> {
    await this.viewers.staff(person, courseId, 'read-course');
    const rows = await this.dataSource.query<Stored[]>(
      `SELECT e."id" AS "enrolmentId", e."personId", p."email", p."name", p."familyName", p."reading", e."number", e."role", e."attributes",
              e."joinedAt", e."leftAt", p."lastSeenAt", p."passwordHash" IS NOT NULL AS "hasComeIn",
              (SELECT max(i."at") FROM "mail" i WHERE i."personId" = p."id" AND i."courseId" = e."courseId") AS "invitedAt",
              (SELECT jsonb_agg(jsonb_build_object('setId', g."setId", 'groupId', g."id", 'number', g."number", 'name', g."name"))
                 FROM "membership" m JOIN "course_group" g ON g."id" = m."groupId"
                WHERE m."enrolmentId" = e."id" AND m."until" IS NULL) AS "groups"
         FROM "enrolment" e JOIN "person" p ON p."id" = e."personId" WHERE e."courseId" = $1 AND e."joinedTo" IS NULL`,
      [courseId],
    );
    const byName = new Intl.Collator('en', { sensitivity: 'base' });
    const entries = rows
      .map((row) => ({
        ...row,
        joinedAt: row.joinedAt.toISOString(),
        leftAt: row.leftAt?.toISOString() ?? null,
        lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
        invitedAt: row.invitedAt?.toISOString() ?? null,
        groups: row.groups ?? [],
      }))
      .sort((a, b) => byName.compare(sortName(a), sortName(b)) || byName.compare(a.name, b.name));
    const sets = await this.dataSource.query<RosterView['sets']>(
      `SELECT s."id", s."name", s."isExclusive", coalesce((SELECT jsonb_agg(jsonb_build_object('id', g."id", 'number', g."number", 'name', g."name") ORDER BY g."number")
                 FROM "course_group" g WHERE g."setId" = s."id"), '[]') AS "groups"
         FROM "group_set" s WHERE s."courseId" = $1 AND s."putAwayAt" IS NULL ORDER BY s."position", s."createdAt"`,
      [courseId],
    );
    const { syncedAt, attributeKinds } = await this.dataSource
      .getRepository(CourseRow)
      .findOneByOrFail({ id: courseId });
    return {
      entries,
      sets,
      attributes: attributesOf(entries, attributeKinds),
      syncedAt: syncedAt?.toISOString() ?? null,
    };
  }

  async chooseKind(
    person: SignedIn,
    courseId: CourseId,
    { name, kind }: ChooseKind,
  ): Promise<RosterAttributes> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    await this.unitOfWork.run(async ({ manager, record }) => {
      await manager.findOneOrFail(CourseRow, {
        where: { id: courseId },
        lock: { mode: 'pessimistic_write' },
      });
      await chooseKind(manager, courseId, name, kind);
      await record({
        type: 'roster.changed',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { attribute: name, kind },
      });
    });
    return { attributes: (await this.read(person, courseId)).attributes };
  }

  /** The roster and all memberships, to be taken elsewhere or brought back in. */
  async csv(person: SignedIn, courseId: CourseId): Promise<string> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return writeCsv(await this.read(person, courseId));
  }

  async bundle(person: SignedIn, courseId: CourseId): Promise<Uint8Array> {
    const { role, enrolmentId } = await this.viewers.staff(person, courseId, 'manage-roster');
    const { code, title, term, timeZone } = await this.dataSource
      .getRepository(CourseRow)
      .findOneByOrFail({ id: courseId });
    const course: CourseView = { id: courseId, code, title, term, timeZone, role, enrolmentId };
    return writeBundle(course, await this.read(person, courseId), this.clock.now());
  }

  /** Writes to those of these people (null: of the whole course) who have no password yet, each with a link of their own. */
  async invite(person: SignedIn, courseId: CourseId, { enrolmentIds }: InviteRequest): Promise<Invited> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const { code, title, timeZone } = await manager.findOneByOrFail(CourseRow, { id: courseId });
      const rows = await manager.query<{ personId: string }[]>(
        `SELECT "personId" FROM "enrolment" WHERE "courseId" = $1 AND "leftAt" IS NULL AND ($2::uuid[] IS NULL OR "id" = ANY($2))`,
        [courseId, enrolmentIds],
      );
      if (enrolmentIds && rows.length < new Set(enrolmentIds).size) throw problems.notFound();
      const { links, expiresAt } = await this.people.linksWithin(
        manager,
        rows.map((row) => row.personId),
      );
      const until = new Intl.DateTimeFormat('en-GB', {
        dateStyle: 'full',
        timeStyle: 'short',
        timeZone,
      }).format(new Date(expiresAt));
      const mails = links.map(({ personId, name, email, url }) => ({
        personId,
        toName: name,
        toAddress: email,
        text: invitation({ name, courseTitle: title, courseCode: code, invitedBy: person.name, url, until }),
      }));
      await this.mail.post(manager, courseId, now, mails);
      await record({
        type: 'roster.invited',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { invited: links.length },
      });
      return { invited: links.length, hadComeIn: rows.length - links.length };
    });
  }

  /** Writes to these people, each alone; whoever left is not written to. */
  async write(
    person: SignedIn,
    courseId: CourseId,
    { enrolmentIds, subject, text }: MessageRequest,
  ): Promise<Written> {
    await this.viewers.staff(person, courseId, 'write-to-people');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const { code } = await manager.findOneByOrFail(CourseRow, { id: courseId });
      const people = await manager.query<{ personId: string; toName: string; toAddress: string }[]>(
        `SELECT p."id" AS "personId", p."name" AS "toName", p."email" AS "toAddress" FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"
          WHERE e."courseId" = $1 AND e."leftAt" IS NULL AND e."id" = ANY($2) ORDER BY p."name"`,
        [courseId, enrolmentIds],
      );
      if (people.length < new Set(enrolmentIds).size) throw problems.notFound();
      const mail = message({
        subject,
        text,
        from: person,
        courseCode: code,
        url: `${this.config.publicUrl}/c/${courseId}`,
      });
      await this.mail.post(
        manager,
        courseId,
        now,
        people.map((each) => ({ ...each, text: mail })),
      );
      await record({
        type: 'roster.written-to',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { subject, people: people.length },
      });
      return { written: people.length };
    });
  }

  async outbox(person: SignedIn, courseId: CourseId): Promise<Outbox> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return this.mail.outbox(courseId);
  }

  /** First sign-in links for these people, or for everyone in the course who has no password yet. */
  async signInLinks(
    person: SignedIn,
    courseId: CourseId,
    enrolmentId: EnrolmentId | null,
  ): Promise<SignInLinks> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    const rows = await this.dataSource.query<{ personId: string }[]>(
      `SELECT "personId" FROM "enrolment" WHERE "courseId" = $1 AND "leftAt" IS NULL AND ($2::uuid IS NULL OR "id" = $2)`,
      [courseId, enrolmentId],
    );
    return this.people.linksFor(rows.map((row) => row.personId));
  }
}
