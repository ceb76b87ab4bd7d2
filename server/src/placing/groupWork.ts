import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import type { Move } from '@jigsaw/core/placing';

/** How often someone is credited with what a group handed in. */
export interface Credited {
  readonly enrolmentId: EnrolmentId;
  readonly groupId: GroupId;
  readonly handIns: number;
}

/** What placing asks of the area in which groups hand in: it lies above and says so itself when it starts. */
export interface WorkOfGroups {
  /** @param only these people; null: everyone. */
  creditedIn(
    manager: EntityManager,
    setId: GroupSetId,
    only: readonly EnrolmentId[] | null,
  ): Promise<readonly Credited[]>;
  hasHandedIn(manager: EntityManager, groupId: GroupId, enrolmentId: EnrolmentId): Promise<boolean>;
  /** Those who come to a group share what it handed in last, though it was before their time. */
  creditNewcomers(manager: EntityManager, moves: readonly Move[]): Promise<void>;
  /** Takes that back: what someone is credited with in a group they leave that was handed in while they were not in it. */
  takeCreditsBack(manager: EntityManager, moves: readonly Move[]): Promise<void>;
}

@Injectable()
export class GroupWork {
  private asked: WorkOfGroups | null = null;

  askedOf(work: WorkOfGroups): void {
    this.asked = work;
  }

  get work(): WorkOfGroups {
    assert(this.asked, 'the area in which groups hand in has said so');
    return this.asked;
  }
}
