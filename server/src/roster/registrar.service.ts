import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { RegistrarView } from '@jigsaw/contract/roster';
import type { CourseId, EnrolmentId } from '@jigsaw/core/ids';
import type { ColumnMeaning } from '@jigsaw/core/roster';
import type { Table } from '@jigsaw/core/files';
import { sameAddress } from '@jigsaw/core/course';
import { fold } from '@jigsaw/core/text';
import type { SignedIn } from '../identity/index.js';
import { Problem, problems } from '../platform/problems.js';
import type { RegistrarCourses } from './registrar.js';
import { Registrar } from './registrar.js';
import { courseOf, follow, markListed, Viewers } from '../course/index.js';
import { setsOfCourse } from '../sets/index.js';

/** Those that the registrar listed once and lists no longer. */
export interface Dropped {
  readonly enrolmentIds: ReadonlySet<EnrolmentId>;
  /** A sentence, if there are so many that the registrar is more likely at fault than the class; then no one is proposed to leave. */
  readonly warning: string | null;
}
export const noneDropped: Dropped = { enrolmentIds: new Set(), warning: null };

/** Up to this many may leave at once, or this part of those listed, before it is doubted. */
const plausibleDrops = 3;
const plausiblePart = 0.3;

/** What the registrar has for one course, and what is remembered of it. */
@Injectable()
export class RegistrarService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly registrar: Registrar,
  ) {}

  /** That the registrar is away is an answer too. */
  async view(person: SignedIn, courseId: CourseId): Promise<RegistrarView> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    if (!this.registrar.isThere) return { state: 'none' };
    const course = await courseOf(this.dataSource.manager, courseId);
    let courses: RegistrarCourses;
    try {
      courses = await this.registrar.coursesOf(person.email);
    } catch (error) {
      if (error instanceof Problem) return { state: 'away', sentence: error.detail };
      throw error;
    }
    const set = (await setsOfCourse(this.dataSource.manager, courseId)).find((each) => each.isSynchronised);
    return {
      state: 'there',
      courses,
      followed: course.registrarCode,
      likely: courses.find((each) => fold(each.code) === fold(course.code))?.code ?? null,
      syncedAt: course.syncedAt?.toISOString() ?? null,
      setName: set?.name ?? null,
    };
  }

  /** The registrar's list of a course: of the one that is followed, or of one that this person teaches there. No one reads another's class. */
  async roster(person: SignedIn, courseId: CourseId, code: string): Promise<Table> {
    const { registrarCode } = await courseOf(this.dataSource.manager, courseId);
    if (
      registrarCode !== code &&
      !(await this.registrar.coursesOf(person.email)).some((each) => each.code === code)
    )
      throw problems.registrarAway(
        'The registrar does not name you as a teacher of this course. Ask them to add you, or import a file.',
      );
    return this.registrar.roster(code);
  }

  /** Of these, who are in no row of the registrar's list, those that it listed before. */
  async dropped(courseId: CourseId, missing: readonly EnrolmentId[]): Promise<Dropped> {
    const rows = await this.dataSource.query<{ id: EnrolmentId }[]>(
      `SELECT "enrolmentId" AS "id" FROM "present_student" WHERE "courseId" = $1 AND "listedAt" IS NOT NULL`,
      [courseId],
    );
    const listed = new Set(rows.map((row) => row.id));
    const dropped = missing.filter((enrolmentId) => listed.has(enrolmentId));
    if (dropped.length <= Math.max(plausibleDrops, listed.size * plausiblePart))
      return { enrolmentIds: new Set(dropped), warning: null };
    const warning = `The registrar no longer lists ${dropped.length} of ${listed.size} students. No one is removed unless you choose it. Ask the registrar first.`;
    return { enrolmentIds: new Set(), warning };
  }

  /** Remembers which course is followed, and who the registrar listed: it may drop only those. */
  async note(
    manager: EntityManager,
    courseId: CourseId,
    code: string,
    table: Table,
    meanings: readonly ColumnMeaning[],
    now: Date,
  ): Promise<void> {
    await follow(manager, courseId, code, now);
    const at = meanings.indexOf('email');
    const addresses = table.rows.map((row) => sameAddress((row.cells[at] ?? '').trim()));
    await markListed(manager, courseId, addresses, now);
  }
}
