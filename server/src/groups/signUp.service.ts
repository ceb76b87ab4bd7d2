import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull } from 'typeorm';
import type { SignUpList, SignUpView } from '@jigsaw/contract/placing';
import type { SignUpSettings } from '@jigsaw/contract/sets';
import type { NoPlace, SignUpState } from '@jigsaw/core/placing';
import { sayNoPlace, signUpState, whyNoPlace } from '@jigsaw/core/placing';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { EnrolmentRow, Viewers } from '../roster/index.js';
import { GroupRow, GroupSetRow, MembershipRow } from './groups.rows.js';

type Offered = GroupSetRow & { signUp: SignUpSettings };

interface Counted {
  readonly id: GroupId;
  readonly name: string;
  readonly isLocked: boolean;
  readonly capacity: number | null;
  readonly members: number;
  readonly isYours: boolean;
}

interface Seat {
  readonly groupId: GroupId;
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly reading: string | null;
}

/** Students choose their own places. A set in which they do not is nothing to them. */
@Injectable()
export class SignUpService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<SignUpList> {
    const { role, groups: yours } = await this.viewers.enter(person, courseId);
    if (role !== 'student') return { signUps: [] };
    const { manager } = this.dataSource;
    const sets = await manager.find(GroupSetRow, { where: { courseId }, order: { position: 'ASC' } });
    const offered = sets.filter(isOffered);
    const groups =
      yours.length === 0 ? [] : await manager.findBy(GroupRow, { setId: In(offered.map((set) => set.id)) });
    return {
      signUps: offered.map((set) => {
        const own = groups.find(
          (group) => group.setId === set.id && yours.some((each) => each.groupId === group.id),
        );
        return {
          setId: set.id as GroupSetId,
          name: set.name,
          state: stateOf(set, this.clock.now()),
          opens: set.signUp.opens,
          closes: set.signUp.closes,
          yours: own ? { number: own.number, name: own.name } : null,
        };
      }),
    };
  }

  async view(person: SignedIn, setId: GroupSetId): Promise<SignUpView> {
    const { set, enrolmentId } = await this.enter(person, setId);
    return this.viewOf(this.dataSource.manager, set, enrolmentId);
  }

  /** Takes a place, moves to it, or gives one back. Whoever asks at the same moment waits for their turn, so that no place is given twice;
   * what the page then shows is read once the turn is over. */
  async take(person: SignedIn, setId: GroupSetId, groupId: GroupId | null): Promise<SignUpView> {
    const { set, enrolmentId } = await this.enter(person, setId);
    const refused = await this.inTurn(person, setId, groupId, enrolmentId);
    const view = await this.viewOf(this.dataSource.manager, set, enrolmentId);
    if (refused) throw problems.staleWrite(view, sayNoPlace(refused.why, refused.name));
    return view;
  }

  /** @returns why not; null: it is done. */
  private inTurn(
    person: SignedIn,
    setId: GroupSetId,
    groupId: GroupId | null,
    enrolmentId: EnrolmentId,
  ): Promise<{ why: NoPlace; name: string } | null> {
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneOrFail(GroupSetRow, {
        where: { id: setId },
        lock: { mode: 'pessimistic_write' },
      });
      if (!isOffered(set)) throw problems.notFound();
      const groups = await manager.query<Counted[]>(
        `SELECT g."id", g."name", g."isLocked", coalesce(g."capacity", $2) AS "capacity", count(m."id")::int AS "members",
                coalesce(bool_or(m."enrolmentId" = $3), false) AS "isYours"
           FROM "course_group" g LEFT JOIN "membership" m ON m."groupId" = g."id" AND m."until" IS NULL WHERE g."setId" = $1 GROUP BY g."id"`,
        [setId, set.capacity, enrolmentId],
      );
      const to = groupId === null ? null : groups.find((group) => group.id === groupId);
      if (to === undefined) throw problems.notFound();
      const own = groups.find((group) => group.isYours) ?? null;
      if ((own?.id ?? null) === groupId) return null; // pressed twice

      const elsewhere = groups.filter((group) => group.id !== groupId && !group.isLocked);
      const placesElsewhere = elsewhere.reduce(
        (sum, group) => sum + Math.max(0, (group.capacity ?? Infinity) - group.members),
        0,
      );
      const from = own && {
        isLocked: own.isLocked,
        hasHandedIn: await hasHandedIn(manager, own.id, enrolmentId),
      };
      const why = whyNoPlace({ state: stateOf(set, now), from, to, placesElsewhere });
      if (why) return { why, name: to?.name ?? set.name };

      if (own)
        await manager.update(
          MembershipRow,
          { setId, enrolmentId, until: IsNull() },
          { until: now, endedBy: person.id },
        );
      if (to) {
        const row = {
          id: newId(),
          setId,
          groupId: to.id,
          enrolmentId,
          isExclusive: set.isExclusive,
          from: now,
          until: null,
          placedBy: person.id,
          endedBy: null,
        };
        await manager.insert(MembershipRow, row);
      }
      const touched = [own?.id, to?.id].filter((id) => id !== undefined);
      const facts = { moves: [{ student: enrolmentId, from: own?.id ?? null, to: groupId }] };
      await record({
        type: 'students.placed',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        facts,
        groupIds: touched,
        enrolmentIds: [enrolmentId],
        isForStaff: true,
      });
      // Everybody who chooses sees how many places are left, and nothing else of it.
      await record({
        type: 'places.changed',
        courseId: set.courseId,
        actorId: person.id,
        subjectId: setId,
        isForAll: true,
      });
      return null;
    });
  }

  /** Students of the course, and only where they may choose. */
  private async enter(
    person: SignedIn,
    setId: GroupSetId,
  ): Promise<{ set: Offered; enrolmentId: EnrolmentId }> {
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId });
    const viewer = set && (await this.viewers.find(person, set.courseId));
    if (!set || !viewer || viewer.hasLeft || viewer.role !== 'student' || !isOffered(set))
      throw problems.notFound();
    return { set, enrolmentId: viewer.enrolmentId };
  }

  private async viewOf(manager: EntityManager, set: Offered, enrolmentId: EnrolmentId): Promise<SignUpView> {
    const groups = await manager.find(GroupRow, { where: { setId: set.id }, order: { number: 'ASC' } });
    const seats = await seatsOf(manager, set.id as GroupSetId);
    const yours = seats.find((seat) => seat.enrolmentId === enrolmentId)?.groupId ?? null;
    const state = stateOf(set, this.clock.now());
    const own = groups.find((group) => group.id === yours);
    const from = own
      ? { isLocked: own.isLocked, hasHandedIn: await hasHandedIn(manager, own.id as GroupId, enrolmentId) }
      : null;
    const why = state === 'open' ? whyNoPlace({ state, from, to: null, placesElsewhere: 0 }) : null;
    return {
      set: {
        id: set.id as GroupSetId,
        name: set.name,
        description: set.isDescriptionShown ? set.description : '',
        opens: set.signUp.opens,
        closes: set.signUp.closes,
      },
      state,
      groups: groups.map((group) => {
        const members = seats.filter((seat) => seat.groupId === group.id);
        const areNamesShown = set.signUp.showsNames || group.id === yours;
        return {
          id: group.id as GroupId,
          number: group.number,
          name: group.name,
          members: members.length,
          capacity: group.capacity ?? set.capacity,
          isLocked: group.isLocked,
          names: areNamesShown
            ? members.map((seat) => ({
                name: seat.name,
                reading: seat.reading,
                isYou: seat.enrolmentId === enrolmentId,
              }))
            : null,
        };
      }),
      yours,
      bound: why && sayNoPlace(why, set.name),
      chosen: new Set(seats.map((seat) => seat.enrolmentId)).size,
      students: await manager.countBy(EnrolmentRow, {
        courseId: set.courseId,
        role: 'student',
        leftAt: IsNull(),
      }),
    };
  }
}

const isOffered = (set: GroupSetRow): set is Offered => set.signUp !== null && set.putAwayAt === null;

function stateOf({ signUp, frozenAt }: Offered, now: Date): SignUpState {
  const at = (time: string | null) => (time === null ? null : Date.parse(time));
  return signUpState(
    { opens: at(signUp.opens), closes: at(signUp.closes) },
    frozenAt !== null,
    now.getTime(),
  );
}

const seatsOf = (manager: EntityManager, setId: GroupSetId): Promise<Seat[]> =>
  manager.query<Seat[]>(
    `SELECT m."groupId", e."id" AS "enrolmentId", p."name", p."reading"
       FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = e."personId"
      WHERE m."setId" = $1 AND m."until" IS NULL AND e."leftAt" IS NULL ORDER BY m."from", e."id"`,
    [setId],
  );

/** Whether they are credited with a hand-in of this group. */
async function hasHandedIn(
  manager: EntityManager,
  groupId: GroupId,
  enrolmentId: EnrolmentId,
): Promise<boolean> {
  const [handIn] = await manager.query<unknown[]>(
    `SELECT 1 FROM "credit" k JOIN "hand_in" h ON h."id" = k."handInId" JOIN "copy" c ON c."id" = h."copyId"
      WHERE k."enrolmentId" = $1 AND c."groupId" = $2 LIMIT 1`,
    [enrolmentId, groupId],
  );
  return handIn !== undefined;
}
