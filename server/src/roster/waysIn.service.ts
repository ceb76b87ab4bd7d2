import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { Invited, InviteRequest } from '@jigsaw/contract/mail';
import type { CourseId, EnrolmentId, PersonId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { invitation, passwordChosen } from '@jigsaw/core/mail';
import { courseOf, openTo, Viewers } from '../course/index.js';
import type { OpenedLink, SignedIn } from '../identity/index.js';
import { PeopleService } from '../identity/index.js';
import { MailService, untilWords } from '../mail/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';

interface Person {
  readonly enrolmentId: EnrolmentId;
  readonly personId: PersonId;
  readonly name: string;
  readonly email: string;
  readonly hasComeIn: boolean;
}

/** How people of the roster come in: by a link that their teacher hands them, for this course, or by mail to their address, for all of theirs. */
@Injectable()
export class WaysIn implements OnModuleInit {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly people: PeopleService,
    private readonly unitOfWork: UnitOfWork,
    private readonly mail: MailService,
  ) {}

  onModuleInit(): void {
    this.people.whenOpened((manager, opened) => this.open(manager, opened));
  }

  /** Writes to those of these people (null: of the whole course) who have not signed in yet, each with a link of their own. */
  async invite(person: SignedIn, courseId: CourseId, { enrolmentIds }: InviteRequest): Promise<Invited> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const { code, title, timeZone } = await courseOf(manager, courseId);
      const rows = await this.peopleOf(manager, courseId, enrolmentIds);
      if (enrolmentIds && rows.length < new Set(enrolmentIds).size) throw problems.notFound();
      const waiting = rows.filter((each) => !each.hasComeIn);
      const { urlOf, expiresAt } = await this.people.mailedLinks(
        manager,
        waiting.map((each) => each.personId),
      );
      const until = untilWords(expiresAt, timeZone);
      const mails = waiting.map(({ personId, name, email }) => ({
        personId,
        toName: name,
        toAddress: email,
        text: invitation({
          name,
          courseTitle: title,
          courseCode: code,
          invitedBy: person.name,
          url: sure(urlOf.get(personId)),
          until,
        }),
      }));
      await this.mail.post(manager, courseId, now, mails);
      await record({
        type: 'roster.invited',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { invited: waiting.length },
      });
      return { invited: waiting.length, hadComeIn: rows.length - waiting.length };
    });
  }

  /** Links to hand to these people, or to everyone in the course, if they have not signed in yet. */
  async links(person: SignedIn, courseId: CourseId, enrolmentId: EnrolmentId | null): Promise<SignInLinks> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return this.dataSource.transaction(async (manager) => {
      const rows = await this.peopleOf(manager, courseId, enrolmentId === null ? null : [enrolmentId]);
      const waiting = rows.filter((each) => !each.hasComeIn);
      const { urlOf, expiresAt } = await this.people.handedLinks(manager, waiting);
      return {
        links: waiting.map(({ personId, name, email }) => ({ name, email, url: sure(urlOf.get(personId)) })),
        expiresAt: expiresAt.toISOString(),
      };
    });
  }

  private peopleOf(
    manager: EntityManager,
    courseId: CourseId,
    enrolmentIds: readonly EnrolmentId[] | null,
  ): Promise<Person[]> {
    return manager.query<Person[]>(
      `SELECT "enrolmentId", "personId", "name", "email", "hasComeIn" FROM "course_person"
        WHERE "courseId" = $1 AND "leftAt" IS NULL AND ($2::uuid[] IS NULL OR "enrolmentId" = ANY($2))
        ORDER BY "name", "enrolmentId"`,
      [courseId, enrolmentIds],
    );
  }

  /** The first password is told to its address, with a link by which the owner takes the account from anybody else who has that password. */
  private async open(manager: EntityManager, opened: OpenedLink): Promise<boolean> {
    if (!(await openTo(manager, opened))) return false;
    if (!opened.isFirst) return true;
    const { enrolmentId, personId, now } = opened;
    const [entry] = await manager.query<{ courseId: CourseId; name: string; email: string }[]>(
      `SELECT "courseId", "name", "email" FROM "course_person" WHERE "enrolmentId" = $1`,
      [enrolmentId],
    );
    const { courseId, name, email } = sure(entry);
    const { code, title, timeZone } = await courseOf(manager, courseId);
    const { urlOf, expiresAt } = await this.people.mailedLinks(manager, [personId]);
    const text = passwordChosen({
      courseTitle: title,
      courseCode: code,
      url: sure(urlOf.get(personId)),
      until: untilWords(expiresAt, timeZone),
    });
    await this.mail.post(manager, null, now, [{ personId, toName: name, toAddress: email, text }]); // theirs, not the course's to read
    return true;
  }
}
