import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { CopyId, CourseId, ReleaseId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Decision, CopyDates } from '@jigsaw/core/release';
import type { Act, Viewer } from '@jigsaw/core/course';
import { atLeast, decide, datesFor, isOut as isOutNow } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { arrivalOfRequest } from '../platform/requestContext.js';
import { refuseUnless, Viewers } from '../course/index.js';
import { copyFactsOf, extensionOf, factsOf, scheduleOf, stateOf } from './facts.js';
import { ActivityRow, CopyRow, ExtensionRow, ReleaseRow } from './release.rows.js';

declare const proof: unique symbol;

/** Proof that the decision function let this person at this copy. Only the gate makes one; every private read takes one. */
export interface CopyAccess {
  readonly [proof]: true;
  readonly person: SignedIn;
  readonly viewer: Viewer;
  readonly copy: CopyRow;
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
  readonly extension: ExtensionRow | null;
  /** This copy's dates: with its group's extension. */
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
}

@Injectable()
export class Gate {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  /** @throws not-found for every reason there is. What somebody may do there is the kind's to say. */
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
      .where('copy.id = :copyId', { copyId })
      .getOne();
    if (!found) throw problems.notFound();
    const { release, activity, extension, ...copy } = found as FoundCopy;
    const viewer = await this.viewers.find(person, release.courseId);
    const admitted = this.admit(person, viewer, copy, release, activity, extension);
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

  /** Every copy of a course that this person may read, and every release that they may only know of; four queries, however many there are. */
  async enterAll(
    person: SignedIn,
    courseId: CourseId,
  ): Promise<{ viewer: Viewer; entered: CopyAccess[]; listed: Listed[] }> {
    const viewer = await this.viewers.enter(person, courseId);
    const releases = await this.dataSource.getRepository(ReleaseRow).findBy({ courseId });
    const activities = await this.dataSource.getRepository(ActivityRow).findBy({ courseId });
    const copies =
      releases.length === 0
        ? []
        : await this.dataSource
            .getRepository(CopyRow)
            .findBy({ releaseId: In(releases.map((release) => release.id)) });
    const extensions =
      releases.length === 0
        ? []
        : await this.dataSource
            .getRepository(ExtensionRow)
            .findBy({ activityId: In(activities.map((each) => each.id)) });
    const releaseById = new Map(releases.map((release) => [release.id, release]));
    const activityById = new Map(activities.map((activity) => [activity.id, activity]));
    const extensionOf = new Map(
      extensions.map((extension) => [`${extension.activityId} ${extension.groupId}`, extension]),
    );
    const entered: CopyAccess[] = [];
    const listed = new Map<string, Listed>();
    for (const copy of copies) {
      const release = sure(releaseById.get(copy.releaseId));
      const activity = sure(activityById.get(release.activityId));
      const admitted = this.admit(
        person,
        viewer,
        copy,
        release,
        activity,
        extensionOf.get(`${activity.id} ${copy.groupId ?? ''}`) ?? null,
      );
      if ('copy' in admitted) entered.push(admitted);
      else if (admitted.access === 'listed')
        listed.set(release.id, { release, activity, decision: admitted });
    }
    return { viewer, entered, listed: [...listed.values()] };
  }

  private admit(
    person: SignedIn,
    viewer: Viewer | null,
    copy: CopyRow,
    release: ReleaseRow,
    activity: ActivityRow,
    extension: ExtensionRow | null,
  ): CopyAccess | Decision {
    const copyFacts = copyFactsOf(copy, extension);
    const at = arrivalOfRequest() ?? this.clock.now();
    const decision = decide(viewer, factsOf(release, activity), copyFacts, at.getTime());
    if (viewer === null || !atLeast(decision.access, 'read-only')) return decision;
    const schedule = datesFor(scheduleOf(activity), copyFacts.extension);
    return { person, viewer, copy, release, activity, extension, schedule, decision } as CopyAccess; // the one place that makes the proof
  }
}

/** A copy as it would be with this in its activity, or with more time for its group: to foresee what that changes, never to let anybody in.
 * @param extension of its group; null: everybody's dates; undefined: as it is. */
export function asIf(
  access: CopyAccess,
  {
    activity = access.activity,
    extension = access.extension,
  }: {
    readonly activity?: ActivityRow;
    readonly extension?: Pick<ExtensionRow, 'due' | 'closes'> | null;
  },
): CopyAccess {
  return {
    ...access,
    activity,
    schedule: datesFor(scheduleOf(activity), extension && extensionOf(extension)),
  };
}

/** Whether its members can be in it now. */
export const isOut = ({ release, schedule }: CopyAccess, now: Date): boolean =>
  isOutNow(stateOf(release), schedule, now.getTime());

export const dueOf = ({ schedule }: Pick<CopyAccess, 'schedule'>): Date | null =>
  schedule.due === null ? null : new Date(schedule.due);

/** Acts on one copy take turns from here to the end of the transaction. */
export const lockCopy = (manager: EntityManager, copyId: CopyId): Promise<unknown> =>
  manager.query('SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE', [copyId]);

/** The same for many; always in one order, so that two who lock several do not wait for each other. */
export const lockCopies = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<unknown> =>
  manager.query('SELECT 1 FROM "copy" WHERE "id" = ANY($1) ORDER BY "id" FOR UPDATE', [copyIds]);

/** @throws not-found: who may know of it is the caller's to decide. */
export async function releaseOf(manager: EntityManager, releaseId: ReleaseId): Promise<ReleaseRow> {
  const release = await manager.findOneBy(ReleaseRow, { id: releaseId });
  if (!release) throw problems.notFound();
  return release;
}
