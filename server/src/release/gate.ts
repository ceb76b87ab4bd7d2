import { Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import type { CopyId, CourseId } from '@jigsaw/core/ids';
import type { Access, Decision, Viewer } from '@jigsaw/core/release';
import { atLeast, decide } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { Viewers } from '../roster/index.js';
import { copyFactsOf, factsOf } from './facts.js';
import { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';

declare const proof: unique symbol;

/** Proof that the decision function let this person at this copy. Only the gate makes one; every private read takes one. */
export interface CopyAccess {
  readonly [proof]: true;
  readonly person: SignedIn;
  readonly viewer: Viewer;
  readonly copy: CopyRow;
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
  readonly decision: Decision & { readonly access: 'open' | 'read-only' };
}

@Injectable()
export class Gate {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  /** @throws not-found for every reason there is; closed if it may be read but `needed` is more. */
  async enter(person: SignedIn, copyId: CopyId, needed: Extract<Access, 'open' | 'read-only'> = 'read-only'): Promise<CopyAccess> {
    const copy = await this.dataSource.getRepository(CopyRow).findOneBy({ id: copyId });
    if (!copy) throw problems.notFound();
    const release = await this.dataSource.getRepository(ReleaseRow).findOneByOrFail({ id: copy.releaseId });
    const activity = await this.dataSource.getRepository(ActivityRow).findOneByOrFail({ id: release.activityId });
    const access = this.admit(person, await this.viewers.find(person, release.courseId), copy, release, activity);
    if (!access) throw problems.notFound();
    if (!atLeast(access.decision.access, needed)) throw problems.closed();
    return access;
  }

  /** Every copy of a course that this person may read; three queries, however many there are. */
  async enterAll(person: SignedIn, courseId: CourseId): Promise<{ viewer: Viewer; entered: CopyAccess[] }> {
    const viewer = await this.viewers.enter(person, courseId);
    const releases = await this.dataSource.getRepository(ReleaseRow).findBy({ courseId });
    const activities = await this.dataSource.getRepository(ActivityRow).findBy({ courseId });
    const copies = releases.length === 0 ? [] : await this.dataSource.getRepository(CopyRow).findBy({ releaseId: In(releases.map((release) => release.id)) });
    const releaseById = new Map(releases.map((release) => [release.id, release]));
    const activityById = new Map(activities.map((activity) => [activity.id, activity]));
    const entered = copies.flatMap((copy) => {
      const release = releaseById.get(copy.releaseId)!;
      return this.admit(person, viewer, copy, release, activityById.get(release.activityId)!) ?? [];
    });
    return { viewer, entered };
  }

  private admit(person: SignedIn, viewer: Viewer | null, copy: CopyRow, release: ReleaseRow, activity: ActivityRow): CopyAccess | null {
    const decision = decide(viewer, factsOf(release, activity), copyFactsOf(copy, release), this.clock.now().getTime());
    if (viewer === null || !atLeast(decision.access, 'read-only')) return null;
    return { person, viewer, copy, release, activity, decision } as CopyAccess; // the one place that makes the proof
  }
}
