import { Injectable } from '@nestjs/common';
import type { SetCopyDraft, GroupSetView } from '@jigsaw/contract/sets';
import type { GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { SignedIn } from '../identity/index.js';
import type { Work } from '../platform/unitOfWork.js';
import { setOf, SetMaking, SetViews } from '../sets/index.js';
import type { TakenSeat } from './memberships.js';
import { Memberships } from './memberships.js';

/** Sets again, with everyone in the same group or empty. */
@Injectable()
export class SetCopies {
  constructor(
    private readonly making: SetMaking,
    private readonly views: SetViews,
    private readonly memberships: Memberships,
  ) {}

  /** Within the transaction of the caller, who has made sure that this person may. */
  async copy(
    work: Work,
    person: SignedIn,
    setId: GroupSetId,
    { name, withMembers }: SetCopyDraft,
  ): Promise<GroupSetView> {
    const original = await setOf(work.manager, setId);
    const { set, copyByGroup } = await this.making.copy(work, original, name);
    if (withMembers) {
      const seats = await work.manager.query<TakenSeat[]>(
        `SELECT "enrolmentId", "groupId", "isLeader" FROM "seat" WHERE "setId" = $1`,
        [setId],
      );
      const copied = seats.map((seat) => ({ ...seat, groupId: sure(copyByGroup.get(seat.groupId)) }));
      await this.memberships.begin(work, set, copied, person);
    }
    await work.record({
      type: 'set.created',
      courseId: set.courseId,
      actorId: person.id,
      subjectId: set.id,
      facts: { copyOf: setId, withMembers },
      setIds: [set.id],
    });
    return this.views.one(work.manager, set.courseId, set.id);
  }
}
