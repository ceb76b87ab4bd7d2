import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { AudienceId, CourseId, EnrolmentId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import type { Work } from '../platform/unitOfWork.js';
import type { AudiencesNow } from './audiencesNow.js';

export interface ChangedAudiences {
  readonly work: Work;
  readonly courseId: CourseId;
  /** The one that was changed, and those that name it. */
  readonly ids: ReadonlySet<AudienceId>;
  /** Who was in them until now. */
  readonly before: AudiencesNow;
  readonly person: SignedIn;
  readonly by: EnrolmentId;
}

/** What an area above uses saved audiences for. */
export interface AudienceHearer {
  /** What of its things stands in the way of deleting an audience: what people call them. */
  usesOf(manager: EntityManager, courseId: CourseId): Promise<ReadonlyMap<AudienceId, readonly string[]>>;
  /** In the same transaction, once the change is written. */
  audiencesChanged(changed: ChangedAudiences): Promise<void>;
}

/** Tells the areas above; the areas below them do not know who they are. */
@Injectable()
export class AudienceHearers {
  private readonly hearers: AudienceHearer[] = [];

  add(hearer: AudienceHearer): void {
    this.hearers.push(hearer);
  }

  async usesOf(manager: EntityManager, courseId: CourseId): Promise<(id: AudienceId) => readonly string[]> {
    const all: ReadonlyMap<AudienceId, readonly string[]>[] = [];
    for (const hearer of this.hearers) all.push(await hearer.usesOf(manager, courseId));
    return (id) => all.flatMap((uses) => uses.get(id) ?? []);
  }

  async changed(changed: ChangedAudiences): Promise<void> {
    for (const hearer of this.hearers) await hearer.audiencesChanged(changed);
  }
}
