import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { PracticeView } from '@jigsaw/contract/practice';
import type { CourseId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import {
  lockCourse,
  makePracticeStudent,
  practiceStudentOf,
  startPracticeRound,
  Viewers,
} from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { PeopleService, SitIns } from '../identity/index.js';
import { hasHappened } from '../platform/events.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { Copies, practiceCopies } from '../release/index.js';

interface GroupOfCourse {
  readonly courseId: CourseId;
  readonly groupId: GroupId;
  readonly setId: GroupSetId;
  readonly groupName: string;
}

/** A student of the course who is no one: those who may sit in act as them, to try out what a member of a group can do. They work in copies of their own: no one else meets
 * these, nothing of them counts, and they are cleared together. */
@Injectable()
export class PracticeService implements OnModuleInit {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly people: PeopleService,
    private readonly sitIns: SitIns,
    private readonly copies: Copies,
  ) {}

  onModuleInit(): void {
    this.sitIns.knowPractice((person, groupId) => this.as(person, groupId));
  }

  async read(person: SignedIn, courseId: CourseId): Promise<PracticeView> {
    await this.viewers.staff(person, courseId, 'sit-in');
    return this.view(this.dataSource.manager, courseId);
  }

  /** As often as someone likes: what was released since has a copy from then on, and what is there stays. */
  async start(person: SignedIn, courseId: CourseId, groupId: GroupId): Promise<PracticeView> {
    const { enrolmentId: by } = await this.viewers.staff(person, courseId, 'sit-in');
    return this.unitOfWork.run(async ({ manager, now }) => {
      const group = await groupOf(manager, groupId);
      if (group?.courseId !== courseId) throw problems.notFound();
      const { practiceRound: round } = await lockCourse(manager, courseId);
      if (!(await practiceStudentOf(manager, courseId))) {
        const named = { name: 'Practice student', familyName: null, reading: null };
        const account = await this.people.accountOfNoOne(manager, `practice in ${courseId}`, named);
        await makePracticeStudent(manager, { courseId, personId: account, ...named }, now);
      }
      await this.copies.openForPractice({ manager, now }, group, round, by);
      return this.view(manager, courseId);
    });
  }

  /** All of it, at once; `restore` brings it back. */
  async clear(person: SignedIn, courseId: CourseId): Promise<PracticeView> {
    await this.viewers.staff(person, courseId, 'sit-in');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { practiceRound } = await lockCourse(manager, courseId);
      if ((await practiceCopies(manager, courseId, practiceRound)).length > 0) {
        await startPracticeRound(manager, courseId, practiceRound + 1);
        await record({ type: 'practice.cleared', courseId, actorId: person.id, staff: 'sit-in' });
      }
      return this.view(manager, courseId);
    });
  }

  /** @throws conflict, where someone has practised since. */
  async restore(person: SignedIn, courseId: CourseId, round: number): Promise<PracticeView> {
    await this.viewers.staff(person, courseId, 'sit-in');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { practiceRound } = await lockCourse(manager, courseId);
      if (round === practiceRound) return this.view(manager, courseId); // pressed twice
      const since = await practiceCopies(manager, courseId, practiceRound);
      if (round !== practiceRound - 1 || (await hasHappened(manager, since)))
        throw problems.conflict('Someone has practised here since, so what was cleared stays cleared.');
      await startPracticeRound(manager, courseId, round);
      await record({ type: 'practice.restored', courseId, actorId: person.id, staff: 'sit-in' });
      return this.view(manager, courseId);
    });
  }

  /** Who acts when this person practises in that group.
   * @throws not-found: no such group, or no one has made it ready. */
  private async as(person: SignedIn, groupId: GroupId): Promise<SignedIn> {
    const { manager } = this.dataSource;
    const group = await groupOf(manager, groupId);
    if (!group) throw problems.notFound();
    const { courseId, setId, groupName } = group;
    await this.viewers.staff(person, courseId, 'sit-in');
    const student = await practiceStudentOf(manager, courseId);
    if (!student) throw problems.notFound();
    const { personId, enrolmentId, name, round } = student;
    return {
      id: personId,
      name,
      reading: null,
      email: '',
      isProven: true,
      mayCreateCourses: false,
      sitsIn: { courseId, enrolmentId, practises: { groupId, setId, groupName, round }, by: person.id },
    };
  }

  private async view(manager: EntityManager, courseId: CourseId): Promise<PracticeView> {
    const round = (await practiceStudentOf(manager, courseId))?.round ?? 1;
    const copyIds = await practiceCopies(manager, courseId, round);
    return { round, hasTraces: await hasHappened(manager, copyIds) };
  }
}

async function groupOf(manager: EntityManager, groupId: GroupId): Promise<GroupOfCourse | undefined> {
  const rows = await manager.query<GroupOfCourse[]>(
    `SELECT s."courseId", g."groupId", g."setId", g."name" AS "groupName" FROM "set_group" g JOIN "course_set" s ON s."setId" = g."setId" WHERE g."groupId" = $1`,
    [groupId],
  );
  return rows[0];
}
