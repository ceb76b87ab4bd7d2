import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { Move, Place, Placement, Seat } from '@jigsaw/core/placing';
import { apply } from '@jigsaw/core/placing';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import type { Work } from '../platform/unitOfWork.js';
import type { GroupSetRow } from '../sets/index.js';
import { MembershipRow } from './placing.rows.js';

type SetOfSeats = Pick<GroupSetRow, 'id' | 'courseId' | 'isExclusive' | 'signUp'>;

/** Someone's seat in a group of one set. */
export type TakenSeat = Seat & { readonly enrolmentId: EnrolmentId };

interface Placing {
  readonly set: SetOfSeats;
  readonly place: Place;
  readonly by: SignedIn;
  /** Kept in the history of everyone who moves; null: no one said. */
  readonly why: string | null;
  /** What else is shown with it. */
  readonly facts?: Record<string, unknown>;
}

/** The only writer of memberships: whatever places people goes through here. A membership is history, so that a seat is begun and ended and
 * never overwritten; every function takes the transaction of what it is part of. */
@Injectable()
export class Memberships {
  /** How students get their group in a set now. The caller holds the set.
   * @param only these of the course's students; null: all. */
  private async placementOf(
    manager: EntityManager,
    set: Pick<SetOfSeats, 'id' | 'courseId'>,
    only: readonly EnrolmentId[] | null,
  ): Promise<Placement> {
    const rows = await manager.query<{ id: EnrolmentId; groupId: GroupId | null; isLeader: boolean }[]>(
      `SELECT p."enrolmentId" AS "id", s."groupId", s."isLeader"
         FROM "present_student" p LEFT JOIN "seat" s ON s."enrolmentId" = p."enrolmentId" AND s."setId" = $2
        WHERE p."courseId" = $1 AND ($3::uuid[] IS NULL OR p."enrolmentId" = ANY($3))`,
      [set.courseId, set.id, only],
    );
    return new Map(
      [...groupedBy(rows, (row) => row.id)].map(([id, own]) => [
        id,
        own.flatMap(({ groupId, isLeader }): Seat[] => (groupId === null ? [] : [{ groupId, isLeader }])),
      ]),
    );
  }

  /** Carries out one act and tells of it, to the groups concerned, those who move and all staff; where students choose, everyone hears that
   * places changed, and no more.
   * @returns false: someone was moved meanwhile, and nothing was done. */
  async place(work: Work, { set, place, by, why, facts = {} }: Placing): Promise<boolean> {
    const students = new Set(place.moves.map((move) => move.student));
    // A group's second leader may be anybody; all else hangs on those who move.
    const only = place.moves.some((move) => move.leads?.to) ? null : [...students];
    const before = await this.placementOf(work.manager, set, only);
    const placed = apply(before, place, set.isExclusive);
    if (!placed.ok) return false;
    await this.write(work, { set, before, after: placed.placement, students, by, why });
    const { courseId } = set;
    await work.record({
      type: 'students.placed',
      courseId,
      actorId: by.id,
      subjectId: set.id,
      facts: { moves: place.moves, ...facts },
      groupIds: groupsOf(place.moves),
      enrolmentIds: [...students],
    });
    if (set.signUp)
      await work.record({
        type: 'places.changed',
        courseId,
        actorId: by.id,
        subjectId: set.id,
        isForAll: true,
      });
    return true;
  }

  /** Seats in a new set, in which no one sits yet. */
  async begin(
    { manager, now }: Pick<Work, 'manager' | 'now'>,
    set: Pick<SetOfSeats, 'id' | 'isExclusive'>,
    seats: readonly TakenSeat[],
    by: SignedIn,
    why: string | null = null,
  ): Promise<void> {
    await manager.query(
      `INSERT INTO "membership" ("id", "setId", "groupId", "enrolmentId", "isExclusive", "isLeader", "from", "placedBy", "why")
       SELECT x."id", $1, x."groupId", x."enrolmentId", $3, x."isLeader", $4, $5, $6
         FROM jsonb_to_recordset($2::jsonb) AS x("id" uuid, "groupId" uuid, "enrolmentId" uuid, "isLeader" boolean)`,
      [
        set.id,
        JSON.stringify(seats.map((seat) => ({ id: newId(), ...seat }))),
        set.isExclusive,
        now,
        by.id,
        why,
      ],
    );
  }

  /** These people are in these groups from now on, in whatever sets, and in no others. */
  async seatIn(
    {
      manager,
      now,
      actorId,
    }: { readonly manager: EntityManager; readonly now: Date; readonly actorId: string },
    people: readonly { readonly enrolmentId: EnrolmentId; readonly groups: readonly GroupId[] }[],
  ): Promise<void> {
    const wanted = people.flatMap(({ enrolmentId, groups }) =>
      groups.map((groupId) => ({ id: newId(), enrolmentId, groupId })),
    );
    const shape = `jsonb_to_recordset($1::jsonb) AS x("id" uuid, "enrolmentId" uuid, "groupId" uuid)`;
    await manager.query(
      `UPDATE "membership" m SET "until" = $2, "endedBy" = $3
        WHERE m."enrolmentId" = ANY($4) AND m."until" IS NULL
          AND NOT EXISTS (SELECT 1 FROM ${shape} WHERE x."enrolmentId" = m."enrolmentId" AND x."groupId" = m."groupId")`,
      [JSON.stringify(wanted), now, actorId, people.map((each) => each.enrolmentId)],
    );
    await manager.query(
      `INSERT INTO "membership" ("id", "setId", "groupId", "enrolmentId", "isExclusive", "from", "placedBy")
       SELECT x."id", g."setId", g."groupId", x."enrolmentId", g."isExclusive", $2, $3
         FROM ${shape} JOIN "set_group" g ON g."groupId" = x."groupId"
        WHERE NOT EXISTS (SELECT 1 FROM "membership" m
                           WHERE m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId" AND m."until" IS NULL)`,
      [JSON.stringify(wanted), now, actorId],
    );
  }

  /** Seats that were never meant, of people who were added by mistake: gone without a trace. */
  async forget(
    manager: EntityManager,
    people: readonly { readonly enrolmentId: EnrolmentId; readonly groups: readonly GroupId[] }[],
  ): Promise<void> {
    await manager.query(
      `DELETE FROM "membership" m USING jsonb_to_recordset($1::jsonb) AS x("enrolmentId" uuid, "groupId" uuid)
        WHERE m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId"`,
      [
        JSON.stringify(
          people.flatMap(({ enrolmentId, groups }) => groups.map((groupId) => ({ enrolmentId, groupId }))),
        ),
      ],
    );
  }

  /** Whether one may sit in several groups stands on every seat too, so that the database holds it. */
  async makeExclusive(manager: EntityManager, setId: GroupSetId, isExclusive: boolean): Promise<void> {
    await manager.update(MembershipRow, { setId, until: IsNull() }, { isExclusive });
  }

  /** No one leads a group of this set any more. */
  async endLeading(manager: EntityManager, setId: GroupSetId): Promise<void> {
    await manager.update(MembershipRow, { setId, isLeader: true, until: IsNull() }, { isLeader: false });
  }

  /** Ends the seats that are given up, begins the new ones, and turns the leading of those that stay; four statements for any number. */
  private async write(work: Work, { set, before, after, students, by, why }: Writing): Promise<void> {
    const { ended, turned, begun } = differences(before, after, students);
    const own = `m."setId" = $1 AND m."until" IS NULL AND m."enrolmentId" = x."enrolmentId" AND m."groupId" = x."groupId"`;
    const rows = `jsonb_to_recordset($2::jsonb) AS x("enrolmentId" uuid, "groupId" uuid)`;
    const { manager, now } = work;
    if (ended.length > 0)
      await manager.query(
        `UPDATE "membership" m SET "until" = $3, "endedBy" = $4, "endedWhy" = $5 FROM ${rows} WHERE ${own}`,
        [set.id, JSON.stringify(ended), now, by.id, why],
      );
    // Anyone who leads no longer goes first, since a group has one leader at every moment.
    for (const isLeader of [false, true]) {
      const these = turned.filter((seat) => seat.isLeader === isLeader);
      if (these.length > 0)
        await manager.query(`UPDATE "membership" m SET "isLeader" = $3 FROM ${rows} WHERE ${own}`, [
          set.id,
          JSON.stringify(these),
          isLeader,
        ]);
    }
    if (begun.length > 0) await this.begin(work, set, begun, by, why);
  }
}

interface Writing {
  readonly set: SetOfSeats;
  readonly before: Placement;
  readonly after: Placement;
  readonly students: ReadonlySet<EnrolmentId>;
  readonly by: SignedIn;
  readonly why: string | null;
}

function differences(before: Placement, after: Placement, students: ReadonlySet<EnrolmentId>) {
  const ended: { enrolmentId: EnrolmentId; groupId: GroupId }[] = [];
  const turned: TakenSeat[] = [];
  const begun: TakenSeat[] = [];
  for (const enrolmentId of students) {
    const was = new Map((before.get(enrolmentId) ?? []).map((seat) => [seat.groupId, seat]));
    const is = new Map((after.get(enrolmentId) ?? []).map((seat) => [seat.groupId, seat]));
    for (const groupId of was.keys()) if (!is.has(groupId)) ended.push({ enrolmentId, groupId });
    for (const seat of is.values()) {
      const earlier = was.get(seat.groupId);
      if (!earlier) begun.push({ enrolmentId, ...seat });
      else if (earlier.isLeader !== seat.isLeader) turned.push({ enrolmentId, ...seat });
    }
  }
  return { ended, turned, begun };
}

const groupsOf = (moves: readonly Move[]): GroupId[] => [
  ...new Set(moves.flatMap((move) => [move.from, move.to]).filter((id) => id !== null)),
];
