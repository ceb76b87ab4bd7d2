import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import type { CopyAccess, Unit } from '../release/index.js';

/** Work that waits for its mark, from when on, in milliseconds. */
export interface Waiting {
  /** Whose mark it is, of several the one that has waited longest. */
  readonly unit: Unit;
  readonly since: number;
  /** When the last of it came. */
  readonly newest: number;
  readonly isLate: boolean;
}
interface Asked {
  copiesWithMark(enrolmentId: EnrolmentId): Promise<ReadonlySet<string>>;
  waitingIn(accesses: readonly CopyAccess[], manager: EntityManager): Promise<ReadonlyMap<CopyId, Waiting>>;
}

/** Rooms show where someone has a mark, and where staff have one to give. Marks lie above and say so when they start. */
@Injectable()
export class MarksInRooms {
  private asked: Asked = {
    copiesWithMark: () => Promise.resolve(new Set()),
    waitingIn: () => Promise.resolve(new Map()),
  };

  askedOf(asked: Asked): void {
    this.asked = asked;
  }

  copiesWithMarkFor(enrolmentId: EnrolmentId): Promise<ReadonlySet<string>> {
    return this.asked.copiesWithMark(enrolmentId);
  }

  waitingIn(accesses: readonly CopyAccess[], manager: EntityManager): Promise<ReadonlyMap<CopyId, Waiting>> {
    return this.asked.waitingIn(accesses, manager);
  }
}
