import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import { DataSource } from 'typeorm';
import type { Gradebook, GradebookCell } from '@jigsaw/contract/gradebook';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { Viewer } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupSetId, ReleaseId } from '@jigsaw/core/ids';
import { inNameOrder } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Happenings } from '../platform/happenings.js';
import { KeptByCourse } from '../platform/keptByCourse.js';
import { isReleased, setsOfAudience } from '@jigsaw/core/release';
import type { KeptAudience } from '@jigsaw/core/release';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { cellOf, copiesToTell } from '@jigsaw/core/marks';
import type { CopyAccess } from '../release/index.js';
import { datesOf, Gate, Kinds, nextDue, plainDecimal } from '../release/index.js';
import { toldApart, Viewers } from '../course/index.js';
import { groupTags, inOrderOf } from '../sets/index.js';
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

/** What the students have of one activity. */
interface Filled {
  readonly cells: ReadonlyMap<EnrolmentId, readonly GradebookCell[]>;
  readonly hasGiven: boolean;
}
const nothing: Filled = { cells: new Map(), hasGiven: false };

type Column = Pick<CopyAccess, 'release' | 'activity'> & Filled;

/** Students by assignments, for staff. Columns are named by reference, so a new title is in every heading at once. */
@Injectable()
export class GradebookService {
  private readonly kept: KeptByCourse<ReleaseId, Filled>;

  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly markings: Markings,
    private readonly clock: Clock,
    happenings: Happenings,
  ) {
    this.kept = new KeptByCourse(happenings);
  }

  async read(person: SignedIn, courseId: CourseId): Promise<Gradebook> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const students = await this.students(courseId);
    const all = await this.columns(person, viewer, students);
    // By due date; one that was withdrawn is there as long as students have marks of it.
    const columns = all
      .filter(({ release, hasGiven }) => release.state !== 'withdrawn' || hasGiven)
      .sort((a, b) => dueOf(a.activity) - dueOf(b.activity));
    const apart = await toldApart(this.dataSource.manager, courseId);
    return {
      activities: columns.map(({ release, activity }) => ({
        activityId: activity.id,
        releaseId: release.id,
        setId: onlySet(release.audience),
        markFor: this.kinds.markFor({ release, activity }),
        kind: activity.kind,
        title: activity.title,
        points: plainDecimal(sure(activity.points)),
        due: activity.due?.toISOString() ?? null,
        isWithdrawn: release.state === 'withdrawn',
      })),
      students: students.map(({ email: _email, ...student }) => ({
        ...student,
        name: apart(student.enrolmentId, student.name),
        groups: student.groups ?? [],
        cells: columns.map(({ cells }) => cells.get(student.enrolmentId) ?? []),
      })),
    };
  }

  /** What is marked, with what every student has of it. For anyone who sees the work of all groups it is kept, release by release. */
  private async columns(person: SignedIn, viewer: Viewer, students: readonly Student[]): Promise<Column[]> {
    const now = this.clock.now().getTime();
    const releases = await this.gate.enterReleases(viewer);
    if (!releases) {
      const { entered } = await this.gate.enterAll(person, viewer.courseId);
      const out = entered.filter(isMarked);
      const filled = await this.fill(out, students, now);
      return [...keyedBy(out, ({ release }) => release.id).values()].map(({ release, activity }) => ({
        release,
        activity,
        ...(filled.get(release.id) ?? nothing),
      }));
    }
    const marked = releases.filter(isMarked);
    const ids = marked.map(({ release }) => release.id);
    const kept = await this.kept.all(viewer.courseId, ids, now, async (missing) => {
      const { entered } = await this.gate.enterAll(person, viewer.courseId, { releases: missing });
      const filled = await this.fill(entered, students, now);
      const copies = groupedBy(entered, ({ release }) => release.id);
      return new Map(
        missing.map((id) => [
          id,
          { value: filled.get(id) ?? nothing, until: nextDue(copies.get(id) ?? [], now) },
        ]),
      );
    });
    return marked.map((each) => ({ ...each, ...sure(kept.get(each.release.id)) }));
  }

  private async fill(
    accesses: readonly CopyAccess[],
    students: readonly Student[],
    now: number,
  ): Promise<ReadonlyMap<ReleaseId, Filled>> {
    const { manager } = this.dataSource;
    const markings = await this.markings.of(accesses, manager);
    const tags = await groupTags(
      manager,
      accesses.map(({ copy }) => copy.groupId),
    );
    const byGroup = inOrderOf(tags);
    const groupOf = ({ access }: Marking) => tags.get(access.copy.groupId ?? '');
    const inOrder = markings.toSorted((a, b) => byGroup(groupOf(a), groupOf(b)));
    const studentOf = keyedBy(students, (student) => student.enrolmentId);
    const once = onlyOnce();
    return new Map(
      [...groupedBy(inOrder, ({ access }) => access.release.id)].map(([releaseId, own]) => {
        const cells = [...creditsByStudent(own)].flatMap(([enrolmentId, credits]) => {
          const student = studentOf.get(enrolmentId);
          return student ? [[enrolmentId, cellsFor(student, credits, tags, now).map(once)] as const] : [];
        });
        const hasGiven = own.some(({ sheet }) => sheet.given.size > 0);
        return [releaseId, { cells: new Map(cells), hasGiven }];
      }),
    );
  }

  /** Released marks only, as a spreadsheet opens them; cells that begin like a formula are escaped. A mark that is not out of the points that the heading
   * says by now says so itself. */
  async csv(person: SignedIn, courseId: CourseId): Promise<string> {
    const { activities: all, students } = await this.read(person, courseId);
    const activities = all.flatMap((activity, at) => (activity.isWithdrawn ? [] : [{ ...activity, at }]));
    const people = new Map((await this.students(courseId)).map((student) => [student.enrolmentId, student]));
    const header = [
      'Number',
      'Name',
      'Address',
      ...activities.map((activity) => `${activity.title} (of ${activity.points})`),
    ];
    const rows = students.map((student) => [
      student.number ?? '',
      people.get(student.enrolmentId)?.name ?? '',
      people.get(student.enrolmentId)?.email ?? '',
      ...activities.map(({ at, points }) => {
        const given = sure(student.cells[at]).filter(
          ({ state }) => state === 'released' || state === 'excused',
        );
        // A mark alone is a number that a spreadsheet adds up; of several, each says which group's it is.
        return given.length === 1
          ? written(sure(given[0]), points)
          : given.map((cell) => `${written(cell, points)} (${cell.group ?? 'all'})`).join('; ');
      }),
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
    return inNameOrder(rows);
  }
}

const isMarked = ({ activity, release }: Pick<CopyAccess, 'release' | 'activity'>) =>
  activity.points !== null && (isReleased(release) || release.state === 'withdrawn');

const dueOf = (activity: { due: Date | null }) => activity.due?.getTime() ?? Infinity;

/** Whose work each unit is: one pass, so that a cell is looked up. */
function creditsByStudent(markings: readonly Marking[]): ReadonlyMap<EnrolmentId, readonly Marking[]> {
  const credits = new Map<EnrolmentId, Marking[]>();
  for (const marking of markings)
    for (const id of new Set([...marking.work.credited, ...marking.sheet.given.keys()])) {
      const own = credits.get(id as EnrolmentId);
      if (own) own.push(marking);
      else credits.set(id as EnrolmentId, [marking]);
    }
  return credits;
}

/** What one student has of one activity. Credit decides, not the group of today: anyone who moved on keeps what was handed in with them. */
function cellsFor(
  { enrolmentId, groups }: Pick<Student, 'enrolmentId' | 'groups'>,
  credits: readonly Marking[],
  tags: ReadonlyMap<string, GroupTag>,
  now: number,
): GradebookCell[] {
  const told = copiesToTell(
    credits.map((marking) => ({
      ...cellOf(marking.sheet, enrolmentId, datesOf(marking.access, enrolmentId).due, now),
      marking,
      setId: marking.access.copy.setId,
      isTheirs: (groups ?? []).some((group) => group.groupId === marking.access.copy.groupId),
    })),
  );
  const ofGroup = told.map(({ marking }) => tags.get(marking.access.copy.groupId ?? ''));
  return told.map(({ state, mark, points, isChanged, marking: { access, unit, work } }, at) => ({
    state,
    mark,
    points,
    isChanged,
    copyId: access.copy.id,
    unit,
    isLate: (work.ownLate?.get(enrolmentId) ?? work.late).minutes > 0,
    group: told.length > 1 ? nameAmong(ofGroup[at], ofGroup) : null,
  }));
}

/** Equal cells as one object: a group's members have most of theirs in common. */
function onlyOnce(): (cell: GradebookCell) => GradebookCell {
  const known = new Map<string, GradebookCell>();
  return (cell) => {
    const key = JSON.stringify(cell);
    known.set(key, known.get(key) ?? cell);
    return sure(known.get(key));
  };
}

/** A group's name, with that of its set where another has the same. */
function nameAmong(group: GroupTag | undefined, all: readonly (GroupTag | undefined)[]): string | null {
  if (!group) return null;
  const isAlone = all.every((other) => other?.id === group.id || other?.name !== group.name);
  return isAlone ? group.name : `${group.name}, ${group.setName}`;
}

const written = ({ state, mark, points }: GradebookCell, ofNow: string): string =>
  state === 'excused' ? 'excused' : points === ofNow ? (mark ?? '') : `${mark} of ${points}`;

/** Students are sorted by the groups of this set; null: it goes to several, or to none. */
function onlySet(audience: KeptAudience): GroupSetId | null {
  const [setId, ...more] = setsOfAudience(audience);
  return more.length === 0 ? (setId ?? null) : null;
}
