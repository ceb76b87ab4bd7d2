import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { CourseId, EnrolmentId, PersonId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { SitIns } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { Viewers } from './viewers.js';

interface Student {
  readonly courseId: CourseId;
  readonly id: PersonId;
  readonly name: string;
  readonly reading: string | null;
  readonly email: string;
}

/** Lets those who may sit in as a student of their course: everything is decided for that student from here on, under the name that the course has for them. */
@Injectable()
export class SitIn implements OnModuleInit {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly sitIns: SitIns,
  ) {}

  onModuleInit(): void {
    this.sitIns.know((person, enrolmentId) => this.as(person, enrolmentId));
  }

  private async as(person: SignedIn, enrolmentId: EnrolmentId): Promise<SignedIn> {
    const [student] = await this.dataSource.query<Student[]>(
      `SELECT "courseId", "personId" AS "id", "name", "reading", "email" FROM "present_student" WHERE "enrolmentId" = $1`,
      [enrolmentId],
    );
    if (!student) throw problems.notFound();
    const { courseId, ...who } = student;
    await this.viewers.staff(person, courseId, 'sit-in');
    return {
      ...who,
      // They see the course as it is for them once they come in, whether they have come in yet or not.
      isProven: true,
      mayCreateCourses: false,
      sitsIn: { courseId, enrolmentId, practises: null, by: person.id },
    };
  }
}
