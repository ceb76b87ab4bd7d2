import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { Act, Role, Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, GroupSetId, PersonId } from '@jigsaw/core/ids';
import type { Practising, SignedIn, SittingIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';

interface Found {
  readonly courseId: CourseId;
  readonly personId: PersonId;
  readonly id: EnrolmentId;
  readonly role: Role;
  readonly hasLeft: boolean;
  readonly seesOnlyLed: boolean;
  readonly leads: GroupId[] | null;
  readonly groups: { groupId: GroupId; setId: GroupSetId }[] | null;
}

/** What areas above know of an enrolment: an SQL expression over the enrolment's id, giving a JSON array or null. */
type FactSql = (enrolmentId: string) => string;

/** Builds the Viewer: who someone is in one course. Every private read starts here. */
@Injectable()
export class Viewers {
  private readonly facts: Record<'leads' | 'groups', FactSql> = { leads: () => 'NULL', groups: () => 'NULL' };

  constructor(private readonly dataSource: DataSource) {}

  /** The area that owns a fact says how it is read, so that a viewer stays one query and the ground knows no groups.
   * `leads`: ids of groups; `groups`: objects of groupId and setId. */
  know(fact: 'leads' | 'groups', sql: FactSql): void {
    this.facts[fact] = sql;
  }

  /** null: not in this course, not let in to it yet, or there is no such course; no one can tell which. */
  async find(person: SignedIn, courseId: CourseId): Promise<Viewer | null> {
    if (person.sitsIn && person.sitsIn.courseId !== courseId) return null;
    if (person.sitsIn?.practises) return practising(person.sitsIn, person.sitsIn.practises);
    const [row] = await this.read(
      this.dataSource.manager,
      `e."courseId" = $1 AND e."personId" = $2 AND (e."openedFor" = $2 OR $3)`,
      [courseId, person.id, person.isProven],
    );
    return row ? viewerOf(row) : null;
  }

  /** All students of a course. */
  async students(manager: EntityManager, courseId: CourseId): Promise<Viewer[]> {
    const rows = await this.read(
      manager,
      `e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL`,
      [courseId],
    );
    return rows.map(viewerOf);
  }

  /** Everyone who is or was in a course, in the order of their names, with when they left. Who may know of them is the caller's to decide. */
  async everyone(
    manager: EntityManager,
    courseId: CourseId,
  ): Promise<
    {
      readonly viewer: Viewer;
      readonly name: string;
      readonly reading: string | null;
      readonly leftAt: Date | null;
    }[]
  > {
    const rows = await this.read(manager, `e."courseId" = $1`, [courseId]);
    const viewers = new Map(rows.map((row) => [row.id, viewerOf(row)]));
    const named = await manager.query<
      { enrolmentId: EnrolmentId; name: string; reading: string | null; leftAt: Date | null }[]
    >(
      `SELECT p."enrolmentId", p."name", p."reading", e."leftAt" FROM "course_person" p JOIN "enrolment" e ON e."id" = p."enrolmentId"
        WHERE p."courseId" = $1 ORDER BY p."name", p."enrolmentId"`,
      [courseId],
    );
    return named.flatMap(({ enrolmentId, ...person }) => {
      const viewer = viewers.get(enrolmentId);
      return viewer ? [{ viewer, ...person }] : [];
    });
  }

  /** Who these are in one course by now, each with whose entry it is; who may not enter any more is not among them. */
  async again(
    courseId: CourseId,
    enrolmentIds: readonly EnrolmentId[],
  ): Promise<ReadonlyMap<EnrolmentId, { readonly personId: PersonId; readonly viewer: Viewer }>> {
    const rows = await this.read(
      this.dataSource.manager,
      `e."courseId" = $1 AND e."id" = ANY($2) AND e."leftAt" IS NULL
         AND (e."openedFor" = e."personId" OR EXISTS (SELECT 1 FROM "account" a WHERE a."personId" = e."personId" AND a."isProven"))`,
      [courseId, enrolmentIds],
    );
    return new Map(rows.map((row) => [row.id, { personId: row.personId, viewer: viewerOf(row) }]));
  }

  private read(manager: EntityManager, where: string, parameters: unknown[]): Promise<Found[]> {
    return manager.query<Found[]>(
      `SELECT e."courseId", e."personId", e."id", e."role", e."leftAt" IS NOT NULL AS "hasLeft",
              e."role" = 'assistant' AND c."assistantsSee" = 'theirs' AS "seesOnlyLed",
              ${this.facts.leads('e."id"')} AS "leads", ${this.facts.groups('e."id"')} AS "groups"
         FROM "enrolment" e JOIN "course" c ON c."id" = e."courseId" WHERE e."role" <> 'practice' AND (${where})`,
      parameters,
    );
  }

  /** Anybody who is in the course now. */
  async enter(person: SignedIn, courseId: CourseId): Promise<Viewer> {
    const viewer = await this.find(person, courseId);
    if (!viewer || viewer.hasLeft) throw problems.notFound();
    return viewer;
  }

  /** Staff who may do this. Students learn nothing; staff whose role lacks it are told so. */
  async staff(person: SignedIn, courseId: CourseId, act: Act): Promise<Viewer> {
    const viewer = await this.enter(person, courseId);
    refuseUnless(viewer, act);
    return viewer;
  }
}

/** As a student of the group, without a seat in it: no one meets them there. */
const practising = ({ courseId, enrolmentId }: SittingIn, { groupId, setId }: Practising): Viewer => ({
  courseId,
  enrolmentId,
  role: 'student',
  hasLeft: false,
  seesOnlyLed: false,
  leads: [],
  groups: [{ groupId, setId }],
});

/** Students learn nothing; staff whose role lacks it are told so. */
export function refuseUnless({ role }: Viewer, act: Act): void {
  if (!may(role, 'read-course')) throw problems.notFound();
  if (!may(role, act)) throw problems.notYours();
}

const viewerOf = ({ courseId, id, role, hasLeft, seesOnlyLed, leads, groups }: Found): Viewer => ({
  courseId,
  enrolmentId: id,
  role,
  hasLeft,
  seesOnlyLed,
  leads: leads ?? [],
  groups: groups ?? [],
});
