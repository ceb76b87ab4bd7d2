import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { EnrolmentId } from '@jigsaw/core/ids';

export interface MadeGroups {
  readonly manager: EntityManager;
  readonly now: Date;
  readonly setId: string;
  /** Who of the course made them. */
  readonly by: EnrolmentId;
}

/** Tells areas above that a set has new groups, in the transaction that made them: what was released to the whole set is theirs too. */
@Injectable()
export class NewGroups {
  private readonly hearers: ((made: MadeGroups) => Promise<void>)[] = [];

  whenMade(hearer: (made: MadeGroups) => Promise<void>): void {
    this.hearers.push(hearer);
  }

  async tell(made: MadeGroups): Promise<void> {
    for (const hear of this.hearers) await hear(made);
  }
}
