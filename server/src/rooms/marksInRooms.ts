import { Injectable } from '@nestjs/common';
import type { EnrolmentId } from '@jigsaw/core/ids';

type CopiesWithMark = (enrolmentId: EnrolmentId) => Promise<ReadonlySet<string>>;

/** Rooms show where someone has a mark. Marks lie above and say so when they start. */
@Injectable()
export class MarksInRooms {
  private asked: CopiesWithMark = () => Promise.resolve(new Set());

  askedOf(copiesWithMark: CopiesWithMark): void {
    this.asked = copiesWithMark;
  }

  copiesWithMarkFor(enrolmentId: EnrolmentId): Promise<ReadonlySet<string>> {
    return this.asked(enrolmentId);
  }
}
