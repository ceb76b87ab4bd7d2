import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import { DataSource } from 'typeorm';
import type { Gradebook, GradebookCell } from '@jigsaw/contract/marks';
import type { CourseId, EnrolmentId, CopyId } from '@jigsaw/core/ids';
import { sortName } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { isReleased } from '@jigsaw/core/release';
import { groupedBy, sure } from '@jigsaw/core/lists';
import { cellOf } from '@jigsaw/core/marks';
import { Gate, Kinds, plainDecimal } from '../release/index.js';
import { Viewers } from '../course/index.js';
import type { Marking } from './markings.js';
import { Markings } from './markings.js';

interface Student {
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly familyName: string | null;
  readonly reading: string | null;
  readonly number: string | null;
  readonly email: string;
  readonly groups: Gradebook['students'][number]['groups'] | null;
}

/** Students by assignments, for staff. Columns are named by reference, so a new title is in every heading at once. */
@Injectable()
export class GradebookService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly markings: Markings,
    private readonly clock: Clock,
  ) {}

  async read(person: SignedIn, courseId: CourseId): Promise<Gradebook> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { entered } = await this.gate.enterAll(person, courseId);
    const out = entered.filter((access) => access.activity.points !== null && isReleased(access.release));
    const markings = await this.markings.of(out, this.dataSource.manager);
    const released = await this.dataSource.query<
      { copyId: CopyId; enrolmentId: EnrolmentId; mark: string | null }[]
    >(`SELECT "copyId", "enrolmentId", "mark" FROM "released_mark" WHERE "copyId" = ANY($1)`, [
      out.map((access) => access.copy.id),
    ]);
    const releasedMark = new Map(released.map((row) => [`${row.copyId} ${row.enrolmentId}`, row.mark]));
    const students = await this.students(courseId);
    const columns = [...new Map(out.map((access) => [access.release.id, access])).values()].sort(
      (a, b) => dueOf(a.activity) - dueOf(b.activity),
    );
    const credits = creditsByStudent(markings);
    const now = this.clock.now().getTime();
    return {
      activities: columns.map((access) => ({
        activityId: access.activity.id,
        releaseId: access.release.id,
        setId: access.release.setId,
        markFor: this.kinds.markFor(access),
        kind: access.activity.kind,
        title: access.activity.title,
        points: plainDecimal(sure(access.activity.points)),
        due: access.activity.due?.toISOString() ?? null,
      })),
      students: students.map(({ email: _email, ...student }) => ({
        ...student,
        groups: student.groups ?? [],
        cells: columns.map(({ release }) =>
          cellFor(
            credits.get(`${release.id} ${student.enrolmentId}`) ?? [],
            student.enrolmentId,
            releasedMark,
            now,
          ),
        ),
      })),
    };
  }

  /** Released marks only, as a spreadsheet opens them; cells that begin like a formula are escaped. */
  async csv(person: SignedIn, courseId: CourseId): Promise<string> {
    const { activities, students } = await this.read(person, courseId);
    const emails = new Map(
      (await this.students(courseId)).map((student) => [student.enrolmentId, student.email]),
    );
    const header = [
      'Number',
      'Name',
      'Address',
      ...activities.map((activity) => `${activity.title} (of ${activity.points})`),
    ];
    const rows = students.map((student) => [
      student.number ?? '',
      student.name,
      emails.get(student.enrolmentId) ?? '',
      ...student.cells.map((cell) =>
        cell.state === 'released' ? (cell.mark ?? '') : cell.state === 'excused' ? 'excused' : '',
      ),
    ]);
    return stringify([header, ...rows], { bom: true, escape_formulas: true, record_delimiter: '\r\n' });
  }

  private async students(courseId: CourseId): Promise<Student[]> {
    const rows = await this.dataSource.query<Student[]>(
      `SELECT p."enrolmentId", p."name", p."familyName", p."reading", p."email", p."number",
              (SELECT jsonb_agg(jsonb_build_object('setId', g."setId", 'groupId', g."groupId", 'number', g."number", 'name', g."name"))
                 FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId" WHERE s."enrolmentId" = p."enrolmentId") AS "groups"
         FROM "present_student" p WHERE p."courseId" = $1`,
      [courseId],
    );
    const byName = new Intl.Collator('en', { sensitivity: 'base' });
    return rows.sort((a, b) => byName.compare(sortName(a), sortName(b)) || byName.compare(a.name, b.name));
  }
}

const dueOf = (activity: { due: Date | null }) => activity.due?.getTime() ?? Infinity;

/** Whose work each unit is, by release and student: one pass, so that a cell is looked up. */
function creditsByStudent(markings: readonly Marking[]): ReadonlyMap<string, readonly Marking[]> {
  const credited = markings.flatMap((marking) =>
    marking.work.credited.map((enrolmentId) => ({
      key: `${marking.access.release.id} ${enrolmentId}`,
      marking,
    })),
  );
  return new Map(
    [...groupedBy(credited, ({ key }) => key)].map(([key, all]) => [key, all.map((each) => each.marking)]),
  );
}

/** What one student has in one activity. Credit decides, not the group of today: whoever moved on keeps what was handed in with them. */
function cellFor(
  credits: readonly Marking[],
  enrolmentId: EnrolmentId,
  releasedMark: ReadonlyMap<string, string | null>,
  now: number,
): GradebookCell {
  const marking = credits.find((each) => each.work.latest !== null) ?? credits[0];
  if (!marking) return { state: 'not-theirs', mark: null, copyId: null, unit: null, isLate: false };
  const { work, access, unit, sheet } = marking;
  const given = releasedMark.get(`${access.copy.id} ${enrolmentId}`);
  const released = given === undefined || given === null ? given : plainDecimal(given);
  const copyId = access.copy.id as GradebookCell['copyId'];
  return {
    ...cellOf(sheet, enrolmentId, released, access.schedule.due, now),
    copyId,
    unit,
    isLate: work.late.minutes > 0,
  };
}
