import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { CopyDates, Decision } from '@jigsaw/core/release';
import type { Act, Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import { atLeast, decide } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { practiceRoundOf } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { arrivalOfRequest } from '../platform/requestContext.js';
import { refuseUnless, Viewers } from '../course/index.js';
import { evaluator, noOnes } from './evaluate.js';
import type { AudienceNow } from './evaluate.js';
import { workedOut } from './dates.js';
import { copyFactsOf, factsOf } from './facts.js';
import type { GrantedRow, OwnTime } from './facts.js';
import { ActivityRow, CopyRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';

declare const proof: unique symbol;

/** Proof that the decision function let this person at this copy. Only the gate makes one; every private read takes one. */
export interface CopyAccess {
  readonly [proof]: true;
  readonly person: SignedIn;
  readonly viewer: Viewer;
  readonly copy: CopyRow;
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
  /** What its group was granted. */
  readonly extension: GrantedRow | null;
  /** What students were granted in its activity, each for themselves. */
  readonly ownTime: OwnTime;
  /** This copy's dates for the asker: with its group's extension, and for a student with their own. For others `datesOf` says. */
  readonly schedule: CopyDates;
  readonly decision: Decision & { readonly access: 'open' | 'read-only' };
}

/** A release of which the person may know that it exists, and no more. */
export interface Listed {
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
  readonly decision: Decision;
}

interface FoundCopy extends CopyRow {
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
  readonly extension: ExtensionRow | null;
  readonly ownTime: readonly StudentExtensionRow[];
}

@Injectable()
export class Gate {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  /** @throws not-found for every reason there is. What someone may do there is the kind's to say. */
  async enter(person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const found = await this.dataSource.manager
      .createQueryBuilder(CopyRow, 'copy')
      .innerJoinAndMapOne('copy.release', ReleaseRow, 'release', 'release.id = copy."releaseId"')
      .innerJoinAndMapOne('copy.activity', ActivityRow, 'activity', 'activity.id = release."activityId"')
      .leftJoinAndMapOne(
        'copy.extension',
        ExtensionRow,
        'extension',
        'extension."activityId" = activity.id AND extension."groupId" = copy."groupId"',
      )
      .leftJoinAndMapMany('copy.ownTime', StudentExtensionRow, 'own', 'own."activityId" = activity.id')
      .where('copy.id = :copyId AND copy."practiceRound" IS NOT DISTINCT FROM :round', {
        copyId,
        round: practiceRoundOf(person),
      })
      .getOne();
    if (!found) throw problems.notFound();
    const { release, activity, extension, ownTime: granted, ...copy } = found as FoundCopy;
    const ownTime: OwnTime = keyedBy(granted, (row) => row.enrolmentId);
    const viewer = await this.viewers.find(person, release.courseId);
    const at = (arrivalOfRequest() ?? this.clock.now()).getTime();
    const audienceNow = await this.audienceNow(viewer, [release]);
    const decision = decide(
      viewer,
      factsOf(release, activity, audienceNow, ownTime),
      copyFactsOf(copy, extension),
      at,
    );
    const admitted = admit(person, viewer, copy, { release, activity, extension, ownTime }, decision);
    if (!('copy' in admitted)) throw problems.notFound();
    return admitted;
  }

  /** Staff who may do this in the course of a copy that they may see.
   * @throws not-found for what is not marked, too. */
  async enterAsStaff(person: SignedIn, copyId: CopyId, act: Act): Promise<CopyAccess> {
    const access = await this.enter(person, copyId);
    refuseUnless(access.viewer, act);
    if (access.activity.points === null) throw problems.notFound();
    return access;
  }

  /** Every copy of a course that this person may read, and every release that they may only know of; a few queries, however many there are.
   * @param only those of these releases, or of this group. */
  async enterAll(
    person: SignedIn,
    courseId: CourseId,
    only: { readonly releases?: readonly ReleaseId[]; readonly group?: GroupId } = {},
  ): Promise<{ viewer: Viewer; entered: CopyAccess[]; listed: Listed[] }> {
    const viewer = await this.viewers.enter(person, courseId);
    const { releases, activities } = await this.releasesOf(courseId, only.releases ?? null);
    const granted = await this.grantedIn(courseId, only.releases ?? null);
    const round = practiceRoundOf(person);
    const copies = await this.copiesFor(viewer, round, only.releases ?? null, only.group ?? null);
    const audienceNow = await this.audienceNow(viewer, releases);
    const activityById = keyedBy(activities, (activity) => activity.id);
    const factsById = new Map(
      releases.flatMap((release) => {
        const activity = activityById.get(release.activityId);
        return activity
          ? [
              [
                release.id,
                {
                  release,
                  activity,
                  facts: factsOf(release, activity, audienceNow, granted.toStudents(activity.id)),
                },
              ],
            ]
          : [];
      }),
    );
    const at = (arrivalOfRequest() ?? this.clock.now()).getTime();
    const entered: CopyAccess[] = [];
    const listed = new Map<string, Listed>();
    for (const copy of copies) {
      const of = factsById.get(copy.releaseId);
      if (!of) continue; // it came between two of the statements, and is for the next request
      const { release, activity, facts } = of;
      const extension = granted.toGroup(activity.id, copy.groupId);
      const ownTime = granted.toStudents(activity.id);
      const decision = decide(viewer, facts, copyFactsOf(copy, extension), at);
      const admitted = admit(person, viewer, copy, { release, activity, extension, ownTime }, decision);
      if ('copy' in admitted) {
        // Who practises learns that something is there for others, and no more of their copies.
        if (copy.practiceRound === round) entered.push(admitted);
      } else if (admitted.access === 'listed')
        listed.set(release.id, { release, activity, decision: admitted });
    }
    return { viewer, entered, listed: [...listed.values()] };
  }

  /** Every copy of one activity that this person may read; none for one that is not there. */
  async enterActivity(person: SignedIn, activityId: ActivityId): Promise<readonly CopyAccess[]> {
    const release = await this.dataSource.manager.findOneBy(ReleaseRow, { activityId });
    if (!release) return [];
    return (await this.enterAll(person, release.courseId, { releases: [release.id] })).entered;
  }

  /** The releases of a course of which this viewer, who sees the work of all groups, may read every copy.
   * @returns null: they see some of the copies only; `enterAll` says which. */
  async enterReleases(
    viewer: Viewer,
  ): Promise<readonly { readonly release: ReleaseRow; readonly activity: ActivityRow }[] | null> {
    if (!may(viewer.role, 'read-course') || viewer.hasLeft || viewer.seesOnlyLed) return null;
    const { releases, activities } = await this.releasesOf(viewer.courseId, null);
    const activityById = keyedBy(activities, (activity) => activity.id);
    const at = this.clock.now().getTime();
    return releases.flatMap((release) => {
      const activity = activityById.get(release.activityId);
      if (!activity) return []; // it came between the two statements
      // To anyone who sees all groups every copy is as any other.
      const anyCopy = { groupId: null, setId: null, extension: null };
      const { access } = decide(viewer, factsOf(release, activity, noOnes, new Map()), anyCopy, at);
      return atLeast(access, 'read-only') ? [{ release, activity }] : [];
    });
  }

  /** What groups and students of a course were granted; one statement. */
  private async grantedIn(courseId: CourseId, only: readonly ReleaseId[] | null) {
    const rows = await this.dataSource.query<Granted[]>(
      `SELECT e."activityId", e."groupId", NULL::uuid AS "enrolmentId", e."due", e."closes", e."reason"
         FROM "extension" e JOIN "release" r ON r."activityId" = e."activityId" WHERE ${chosen}
        UNION ALL SELECT e."activityId", NULL, e."enrolmentId", e."due", e."closes", e."reason"
         FROM "student_extension" e JOIN "release" r ON r."activityId" = e."activityId" WHERE ${chosen}`,
      [courseId, only],
    );
    const ofGroup = new Map<string, GrantedRow>();
    const ofStudents = new Map<ActivityId, Map<EnrolmentId, GrantedRow>>();
    for (const { activityId, groupId, enrolmentId, ...granted } of rows) {
      if (groupId !== null) ofGroup.set(`${activityId} ${groupId}`, granted);
      if (enrolmentId === null) continue;
      const own = ofStudents.get(activityId) ?? new Map<EnrolmentId, GrantedRow>();
      ofStudents.set(activityId, own.set(enrolmentId, granted));
    }
    return {
      toGroup: (activityId: ActivityId, groupId: GroupId | null) =>
        ofGroup.get(`${activityId} ${groupId ?? ''}`) ?? null,
      toStudents: (activityId: ActivityId): OwnTime => ofStudents.get(activityId) ?? none,
    };
  }

  /** Audiences as far as they concern this viewer; of students alone they decide anything. */
  private async audienceNow(viewer: Viewer | null, releases: readonly ReleaseRow[]): Promise<AudienceNow> {
    if (viewer?.role !== 'student') return noOnes;
    const kept = releases.map((release) => release.audience);
    return (await evaluator(this.dataSource.manager, viewer.courseId, kept, viewer.enrolmentId)).audienceNow;
  }

  /** What was released in a course, and its activities: rows as they are, since lists of them are read at every request. One statement after the other:
   * a request that takes several connections at once takes them from others. */
  private async releasesOf(
    courseId: CourseId,
    only: readonly ReleaseId[] | null,
  ): Promise<{ releases: ReleaseRow[]; activities: ActivityRow[] }> {
    const { manager } = this.dataSource;
    return {
      releases: await manager.query(`SELECT r.* FROM "release" r WHERE ${chosen}`, [courseId, only]),
      activities: await manager.query(
        `SELECT a.* FROM "activity" a WHERE a."id" IN (SELECT r."activityId" FROM "release" r WHERE ${chosen})`,
        [courseId, only],
      ),
    };
  }

  /** Copies that can be anything but hidden from this viewer, which the decision then says of each: a student meets those of their groups, those for
   * all and those that are read along, and of a release that outsiders may know of any one tells that. */
  private copiesFor(
    viewer: Viewer,
    round: number | null,
    only: readonly ReleaseId[] | null,
    group: GroupId | null,
  ): Promise<CopyRow[]> {
    const columns = `c."id", c."releaseId", c."groupId", c."setId", c."practiceRound"`;
    const own =
      viewer.role === 'student'
        ? viewer.groups.map((each) => each.groupId)
        : viewer.seesOnlyLed
          ? viewer.leads
          : null;
    if (own === null)
      return this.dataSource.query(
        `SELECT ${columns} FROM "copy" c JOIN "release" r ON r."id" = c."releaseId"
          WHERE ${chosen} AND ($3::uuid IS NULL OR c."groupId" = $3) AND c."practiceRound" IS NOT DISTINCT FROM $4::int`,
        [viewer.courseId, only, group, round],
      );
    return this.dataSource.query(
      `SELECT * FROM (SELECT ${columns} FROM "copy" c JOIN "release" r ON r."id" = c."releaseId"
        WHERE ${chosen} AND c."practiceRound" IS NOT DISTINCT FROM $5::int AND (c."groupId" IS NULL OR c."groupId" = ANY($4) OR r."mode" = 'read-along')
        UNION SELECT ${columns} FROM "release" r
         CROSS JOIN LATERAL (SELECT * FROM "copy" WHERE "releaseId" = r."id" AND "practiceRound" IS NULL LIMIT 1) c
         WHERE ${chosen} AND r."outsiders" = 'listed') found
        WHERE $3::uuid IS NULL OR "groupId" = $3`,
      [viewer.courseId, only, group, own, round],
    );
  }
}

const none: OwnTime = new Map();

interface Granted extends GrantedRow {
  readonly activityId: ActivityId;
  readonly groupId: GroupId | null;
  readonly enrolmentId: EnrolmentId | null;
}

/** Releases "r" of the course $1; $2: only these, unless it is null. */
const chosen = `r."courseId" = $1 AND ($2::uuid[] IS NULL OR r."id" = ANY($2))`;

function admit(
  person: SignedIn,
  viewer: Viewer | null,
  copy: CopyRow,
  what: Pick<CopyAccess, 'release' | 'activity' | 'extension' | 'ownTime'>,
  decision: Decision,
): CopyAccess | Decision {
  if (viewer === null || !atLeast(decision.access, 'read-only')) return decision;
  const schedule = workedOut(what, viewer.enrolmentId);
  return { person, viewer, copy, ...what, schedule, decision } as CopyAccess; // the one place that makes the proof
}

/** A copy as it would be with this in its activity, or with more time for its group or a student: to foresee what that changes, never to let anybody in.
 * @param changes extension: of its group; null: everyone's dates; left out: as it is. */
export function asIf(
  access: CopyAccess,
  changes: {
    readonly activity?: CopyAccess['activity'];
    readonly extension?: GrantedRow | null;
    readonly ownTime?: CopyAccess['ownTime'];
  },
): CopyAccess {
  const as = { ...access, ...changes };
  return { ...as, schedule: workedOut(as, access.viewer.enrolmentId) };
}

/** Acts on one copy take turns from here to the end of the transaction. */
export const lockCopy = (manager: EntityManager, copyId: CopyId): Promise<unknown> =>
  manager.query('SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE', [copyId]);

/** The same for many; always in one order, so that two who lock several do not wait for each other. */
export const lockCopies = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<unknown> =>
  manager.query('SELECT 1 FROM "copy" WHERE "id" = ANY($1) ORDER BY "id" FOR UPDATE', [copyIds]);

/** An activity as it is now, and stays to the end of the transaction. */
export const holdActivity = (manager: EntityManager, { activity }: CopyAccess): Promise<ActivityRow> =>
  manager.findOneOrFail(ActivityRow, { where: { id: activity.id }, lock: { mode: 'pessimistic_read' } });

/** @throws not-found: who may know of it is the caller's to decide. */
export async function releaseOf(manager: EntityManager, releaseId: ReleaseId): Promise<ReleaseRow> {
  const release = await manager.findOneBy(ReleaseRow, { id: releaseId });
  if (!release) throw problems.notFound();
  return release;
}
