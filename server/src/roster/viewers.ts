import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { Role, Viewer, Act } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';

/** Builds the Viewer: who somebody is in one course. Every private read starts here. */
@Injectable()
export class Viewers {
  constructor(private readonly dataSource: DataSource) {}

  /** null: not in this course, or there is no such course; nobody can tell which. */
  async find(person: SignedIn, courseId: string): Promise<Viewer | null> {
    const [row] = await this.dataSource.query<
      {
        id: EnrolmentId;
        role: Role;
        hasLeft: boolean;
        leads: GroupId[];
        seesOnlyLed: boolean;
        groups: { groupId: GroupId; setId: GroupSetId }[] | null;
      }[]
    >(
      `SELECT e."id", e."role", e."leftAt" IS NOT NULL AS "hasLeft",
              ARRAY(SELECT l."groupId" FROM "group_lead" l WHERE l."enrolmentId" = e."id") AS "leads",
              e."role" = 'assistant' AND c."assistantsSee" = 'theirs' AS "seesOnlyLed",
              (SELECT jsonb_agg(jsonb_build_object('groupId', m."groupId", 'setId', m."setId"))
                 FROM "membership" m WHERE m."enrolmentId" = e."id" AND m."until" IS NULL) AS "groups"
         FROM "enrolment" e JOIN "course" c ON c."id" = e."courseId" WHERE e."courseId" = $1 AND e."personId" = $2`,
      [courseId, person.id],
    );
    if (!row) return null;
    const { id, groups, ...viewer } = row;
    return { courseId: courseId as CourseId, enrolmentId: id, ...viewer, groups: groups ?? [] };
  }

  /** Anybody who is in the course now. */
  async enter(person: SignedIn, courseId: string): Promise<Viewer> {
    const viewer = await this.find(person, courseId);
    if (!viewer || viewer.hasLeft) throw problems.notFound();
    return viewer;
  }

  /** Staff who may do this. Students learn nothing; staff whose role lacks it are told so. */
  async staff(person: SignedIn, courseId: string, act: Act): Promise<Viewer> {
    const viewer = await this.enter(person, courseId);
    if (!may(viewer.role, 'read-course')) throw problems.notFound();
    if (!may(viewer.role, act)) throw problems.notYours();
    return viewer;
  }
}
