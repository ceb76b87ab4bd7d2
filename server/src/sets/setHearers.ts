import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import type { GroupRow, GroupSetRow } from './sets.rows.js';

export interface MadeGroups {
  readonly manager: EntityManager;
  readonly now: Date;
  readonly setId: GroupSetId;
  /** Who of the course made them. */
  readonly by: EnrolmentId;
}

export interface ChangingSet {
  readonly manager: EntityManager;
  readonly set: GroupSetRow;
  readonly next: Pick<GroupSetRow, 'isExclusive' | 'hasLeaders'>;
}

export interface RemovedGroup {
  readonly manager: EntityManager;
  readonly group: Pick<GroupRow, 'id' | 'name'>;
}

/** What an area above does when sets and groups change, in the same transaction; each may refuse. */
export interface SetHearer {
  /** A set that was there before has new groups: what was released to the whole set is theirs too. */
  groupsMade?(made: MadeGroups): Promise<void>;
  /** Before other settings are written. */
  setChanging?(changing: ChangingSet): Promise<void>;
  /** Before a group goes: the hearer clears what it has of it that no one would miss. */
  groupRemoved?(removed: RemovedGroup): Promise<void>;
}

/** Tells the areas above; the areas below them do not know who they are. */
@Injectable()
export class SetHearers implements Required<SetHearer> {
  private readonly hearers: SetHearer[] = [];

  add(hearer: SetHearer): void {
    this.hearers.push(hearer);
  }

  async groupsMade(made: MadeGroups): Promise<void> {
    for (const hearer of this.hearers) await hearer.groupsMade?.(made);
  }

  async setChanging(changing: ChangingSet): Promise<void> {
    for (const hearer of this.hearers) await hearer.setChanging?.(changing);
  }

  async groupRemoved(removed: RemovedGroup): Promise<void> {
    for (const hearer of this.hearers) await hearer.groupRemoved?.(removed);
  }
}
