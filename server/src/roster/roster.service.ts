import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Outbox } from '@jigsaw/contract/mail';
import type { ChooseKind, RosterAttributes, RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { CourseView } from '@jigsaw/contract/course';
import type { CourseId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { inNameOrder } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { MailService } from '../mail/index.js';
import { Clock } from '../platform/clock.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { attributesOf, chooseKind, courseOf, lockCourse, Viewers } from '../course/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';
import { writeBundle, writeCsv } from './classFile.js';

type Stored = Omit<RosterEntry, 'joinedAt' | 'leftAt' | 'lastSeenAt' | 'invitedAt' | 'groups'> & {
  joinedAt: Date;
  leftAt: Date | null;
  lastSeenAt: Date | null;
  groups: RosterEntry['groups'] | null;
};

@Injectable()
export class RosterService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
    private readonly unitOfWork: UnitOfWork,
    private readonly mail: MailService,
  ) {}

  /** Everyone in the course with the group they have in every set; one query, whatever the size of the class. */
  async read(person: SignedIn, courseId: CourseId): Promise<RosterView> {
    await this.viewers.staff(person, courseId, 'read-course');
    const rows = await this.dataSource.query<Stored[]>(
      `SELECT p."enrolmentId", p."personId", p."email", p."name", p."familyName", p."reading", p."number", p."role", p."attributes",
              p."joinedAt", p."leftAt", p."hasComeIn",
              CASE WHEN p."hasComeIn" THEN p."lastSeenAt" END AS "lastSeenAt", -- what they do in other courses is not this one's to know
              (SELECT jsonb_agg(jsonb_build_object('setId', g."setId", 'groupId', g."groupId", 'number', g."number", 'name', g."name"))
                 FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId" WHERE s."enrolmentId" = p."enrolmentId") AS "groups"
         FROM "course_person" p WHERE p."courseId" = $1 AND p."joinedTo" IS NULL`,
      [courseId],
    );
    const writtenTo = await this.mail.lastWrittenTo(this.dataSource.manager, courseId);
    const entries = inNameOrder(rows).map((row) => ({
      ...row,
      joinedAt: row.joinedAt.toISOString(),
      leftAt: row.leftAt?.toISOString() ?? null,
      lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
      invitedAt: writtenTo.get(row.personId)?.toISOString() ?? null,
      groups: row.groups ?? [],
    }));
    const sets = await this.sets(courseId);
    const { syncedAt, attributeKinds } = await courseOf(this.dataSource.manager, courseId);
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
      await lockCourse(manager, courseId);
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

  /** The roster and all memberships, to be taken elsewhere or restored in. */
  async csv(person: SignedIn, courseId: CourseId): Promise<string> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return writeCsv(await this.read(person, courseId));
  }

  async bundle(person: SignedIn, courseId: CourseId): Promise<Uint8Array> {
    const { role, enrolmentId } = await this.viewers.staff(person, courseId, 'manage-roster');
    const { code, title, term, timeZone } = await courseOf(this.dataSource.manager, courseId);
    const course: CourseView = { id: courseId, code, title, term, timeZone, role, enrolmentId };
    return writeBundle(course, await this.read(person, courseId), this.clock.now());
  }

  async outbox(person: SignedIn, courseId: CourseId): Promise<Outbox> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return this.mail.outbox(courseId);
  }

  /** The sets that are shown, each with its groups. */
  private async sets(courseId: CourseId): Promise<RosterView['sets']> {
    const { manager } = this.dataSource;
    const shown = (await setsOfCourse(manager, courseId)).filter((set) => set.archivedAt === null);
    const groups = await groupsOfSets(
      manager,
      shown.map((set) => set.id),
    );
    const groupsOf = groupedBy(groups, (group) => group.setId);
    return shown.map((set) => ({
      id: set.id,
      name: set.name,
      isExclusive: set.isExclusive,
      groups: (groupsOf.get(set.id) ?? []).map(({ id, number, name }) => ({
        id: id,
        number,
        name,
      })),
    }));
  }
}
