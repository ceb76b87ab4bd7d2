import type { EntityManager } from 'typeorm';
import type { CourseId, EnrolmentId, PersonId } from '@jigsaw/core/ids';
import { newId } from '../platform/ids.js';
import { CourseRow, EnrolmentRow } from './course.rows.js';

export interface PracticeStudent {
  readonly enrolmentId: EnrolmentId;
  readonly personId: PersonId;
  readonly name: string;
  /** Of what is practised now. */
  readonly round: number;
}

/** undefined: no one has practised in this course yet. */
export async function practiceStudentOf(
  manager: EntityManager,
  courseId: CourseId,
): Promise<PracticeStudent | undefined> {
  const rows = await manager.query<PracticeStudent[]>(
    `SELECT e."id" AS "enrolmentId", e."personId", e."name", c."practiceRound" AS "round"
       FROM "enrolment" e JOIN "course" c ON c."id" = e."courseId" WHERE e."courseId" = $1 AND e."role" = 'practice'`,
    [courseId],
  );
  return rows[0];
}

/** The caller holds the course, so that there is one. */
export async function makePracticeStudent(
  manager: EntityManager,
  student: Pick<EnrolmentRow, 'courseId' | 'personId' | 'name' | 'familyName' | 'reading'>,
  now: Date,
): Promise<void> {
  await manager.insert(EnrolmentRow, {
    id: newId<'enrolment'>(),
    ...student,
    role: 'practice',
    number: null,
    attributes: {},
    joinedAt: now,
    leftAt: null,
  });
}

export async function startPracticeRound(
  manager: EntityManager,
  courseId: CourseId,
  round: number,
): Promise<void> {
  await manager.update(CourseRow, courseId, { practiceRound: round });
}
