import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type {
  ChangeAssistants,
  ChangeCourse,
  CourseList,
  CourseView,
  CreateCourse,
} from '@jigsaw/contract/course';
import type { CourseId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { CourseRow, EnrolmentRow } from './course.rows.js';
import { Viewers } from './viewers.js';

@Injectable()
export class CoursesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
  ) {}

  async list(person: SignedIn): Promise<CourseList> {
    const courses = await this.dataSource.query<CourseView[]>(
      `SELECT c."id", c."code", c."title", c."term", c."timeZone", CASE e."role" WHEN 'practice' THEN 'student' ELSE e."role" END AS "role", e."id" AS "enrolmentId"
         FROM "course" c JOIN "enrolment" e ON e."courseId" = c."id"
        WHERE e."personId" = $1 AND e."leftAt" IS NULL AND (e."openedFor" = $1 OR $2)
          AND ($3::uuid IS NULL OR c."id" = $3)
        ORDER BY c."createdAt" DESC`,
      [person.id, person.isProven, person.sitsIn?.courseId ?? null],
    );
    return { courses };
  }

  /** Its names and the zone of its dates; moments that were set stay the moments that they are. */
  async change(
    person: SignedIn,
    courseId: CourseId,
    { version, ...names }: ChangeCourse,
  ): Promise<ChangeCourse> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.update(
        CourseRow,
        { id: courseId, version },
        { ...names, version: version + 1 },
      );
      const course = await manager.findOneByOrFail(CourseRow, { id: courseId });
      const { code, title, term, timeZone } = course;
      const now = { code, title, term, timeZone, version: course.version };
      if (affected === 0)
        throw problems.staleWrite(
          now,
          `Someone else changed the course meanwhile: it is called ${title} (${code}) now. Nothing was saved. Save again to keep what you wrote.`,
        );
      await record({
        type: 'course.changed',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: names,
        isForAll: true,
      });
      return now;
    });
  }

  /** What assistants see follows at once, also in pages that are open. */
  async changeAssistants(
    person: SignedIn,
    courseId: CourseId,
    { assistantsSee }: ChangeAssistants,
  ): Promise<ChangeAssistants> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    return this.unitOfWork.run(async ({ manager, record }) => {
      await manager.update(CourseRow, courseId, { assistantsSee });
      await record({
        type: 'roster.changed',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { assistantsSee },
      });
      return { assistantsSee };
    });
  }

  /** Anyone who makes a course is its instructor. */
  async create(person: SignedIn, draft: CreateCourse): Promise<CourseView> {
    if (!person.mayCreateCourses)
      throw problems.notYours('Your account cannot make courses. Ask the person who runs this server.');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const id = newId<'course'>();
      const enrolmentId = newId<'enrolment'>();
      await manager.insert(CourseRow, { id, ...draft, createdAt: now });
      await manager.insert(EnrolmentRow, {
        id: enrolmentId,
        courseId: id,
        personId: person.id,
        role: 'instructor',
        name: person.name,
        familyName: null,
        reading: person.reading,
        number: null,
        attributes: {},
        joinedAt: now,
        openedFor: person.id,
        leftAt: null,
      });
      await record({ type: 'course.created', courseId: id, actorId: person.id, subjectId: id });
      return {
        id: id,
        ...draft,
        role: 'instructor' as const,
        enrolmentId: enrolmentId,
      };
    });
  }
}
