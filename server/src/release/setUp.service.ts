import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { z } from 'zod';
import type {
  CopySet,
  CreateGroupSet,
  DeriveExperts,
  MadeActivity,
  MadeGroupSet,
  NewSetActivity,
} from '@jigsaw/contract/setUp';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { CourseId, GroupSetId } from '@jigsaw/core/ids';
import { Viewers } from '../course/index.js';
import { ExpertsService } from '../dealing/index.js';
import type { SignedIn } from '../identity/index.js';
import { SetCopies } from '../placing/index.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { setOf, SetMaking } from '../sets/index.js';
import { ActivitiesService } from './activities.service.js';
import { ReleaseService } from './release.service.js';

type Activities = readonly z.output<typeof NewSetActivity>[];

/** A new set with what each of its groups gets: set, groups, seats and activities in one transaction, or none of them. */
@Injectable()
export class SetUpService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly making: SetMaking,
    private readonly copies: SetCopies,
    private readonly experts: ExpertsService,
    private readonly activities: ActivitiesService,
    private readonly releases: ReleaseService,
  ) {}

  create(
    person: SignedIn,
    courseId: CourseId,
    { activities, ...draft }: z.output<typeof CreateGroupSet>,
  ): Promise<MadeGroupSet> {
    return this.make(person, courseId, activities, (work) =>
      this.making.create(work, person, courseId, draft),
    );
  }

  async copy(
    person: SignedIn,
    setId: GroupSetId,
    { activities, ...draft }: z.output<typeof CopySet>,
  ): Promise<MadeGroupSet> {
    const { courseId } = await setOf(this.dataSource.manager, setId);
    return this.make(person, courseId, activities, (work) => this.copies.copy(work, person, setId, draft));
  }

  async deriveExperts(
    person: SignedIn,
    setId: GroupSetId,
    { activities, ...draft }: z.output<typeof DeriveExperts>,
  ): Promise<MadeGroupSet> {
    const { courseId } = await setOf(this.dataSource.manager, setId);
    return this.make(person, courseId, activities, (work) => this.experts.derive(work, person, setId, draft));
  }

  private async make(
    person: SignedIn,
    courseId: CourseId,
    activities: Activities,
    makeSet: (work: Work) => Promise<GroupSetView>,
  ): Promise<MadeGroupSet> {
    await this.viewers.staff(person, courseId, 'manage-groups');
    return this.unitOfWork.run(async (work) => {
      const set = await makeSet(work);
      return { ...set, activities: await this.addActivities(work, person, courseId, set.id, activities) };
    });
  }

  private async addActivities(
    work: Work,
    person: SignedIn,
    courseId: CourseId,
    setId: GroupSetId,
    activities: Activities,
  ): Promise<MadeActivity[]> {
    if (activities.length === 0) return [];
    const { enrolmentId } = await this.viewers.staff(person, courseId, 'release');
    const made: MadeActivity[] = [];
    for (const { draft, isReleased } of activities) {
      const activity = await this.activities.draft(work, person, courseId, draft);
      const copies = isReleased
        ? await this.releases.releaseToNewSet(work, activity, setId, enrolmentId, person)
        : 0;
      made.push({
        id: activity.id,
        title: draft.title,
        kind: draft.kind,
        isReleased,
        copies,
      });
    }
    return made;
  }
}
