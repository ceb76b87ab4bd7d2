import { Injectable } from '@nestjs/common';
import type { z } from 'zod';
import type { MadeActivity, NewSetActivity } from '@jigsaw/contract/setUp';
import type { CourseId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import type { Work } from '../platform/unitOfWork.js';

export interface MadeSet {
  /** The transaction that made the set: what its groups get is made with it, or neither is. */
  readonly work: Work;
  readonly person: SignedIn;
  readonly courseId: CourseId;
  readonly setId: GroupSetId;
  readonly activities: readonly z.output<typeof NewSetActivity>[];
}

/** Lets the area that releases give each group of a new set what it is to get; the areas below do not know how. */
@Injectable()
export class NewSets {
  private give: ((made: MadeSet) => Promise<MadeActivity[]>) | null = null;

  whenMade(give: (made: MadeSet) => Promise<MadeActivity[]>): void {
    this.give = give;
  }

  async equip(made: MadeSet): Promise<MadeActivity[]> {
    if (made.activities.length === 0) return [];
    assert(this.give, 'the area that releases has said how');
    return this.give(made);
  }
}
