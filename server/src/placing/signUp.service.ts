import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { SignUpList, SignUpView } from '@jigsaw/contract/placing';
import type { SignUpSettings } from '@jigsaw/contract/sets';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { NoPlace, SignUpState } from '@jigsaw/core/placing';
import { sayNoPlace, signUpState, whyNoPlace } from '@jigsaw/core/placing';
import { countStudents, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { GroupSetRow } from '../sets/index.js';
import { groupRows, groupsOfSets, lockSet, setOf, setsOfCourse } from '../sets/index.js';
import { GroupWork } from './groupWork.js';
import { Memberships } from './memberships.js';

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
    private readonly memberships: Memberships,
    private readonly groupWork: GroupWork,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<SignUpList> {
    const { role, groups: yours } = await this.viewers.enter(person, courseId);
    if (role !== 'student') return { signUps: [] };
    const { manager } = this.dataSource;
    const sets = await setsOfCourse(manager, courseId);
    const offered = sets.filter(isOffered);
    const groups =
      yours.length === 0
        ? []
        : await groupsOfSets(
            manager,
            offered.map((set) => set.id),
          );
    return {
      signUps: offered.map((set) => {
        const own = groups.find(
          (group) => group.setId === set.id && yours.some((each) => each.groupId === group.id),
        );
        return {
          setId: set.id,
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

  /** Takes a place, moves to it, or gives one back. Anyone who asks at the same moment waits for their turn, so that no place is given twice;
   * what the page then shows is read in the same turn. */
  async take(person: SignedIn, setId: GroupSetId, groupId: GroupId | null): Promise<SignUpView> {
    const { enrolmentId } = await this.enter(person, setId);
    const { view, refused } = await this.unitOfWork.run(async (work) => {
      const set = await lockSet(work.manager, setId);
      if (!isOffered(set)) throw problems.notFound();
      const refused = await this.inTurn(work, person, set, groupId, enrolmentId);
      return { refused, view: await this.viewOf(work.manager, set, enrolmentId) };
    });
    if (refused) throw problems.staleWrite(view, sayNoPlace(refused.why, refused.name));
    return view;
  }

  /** @param set held by the caller.
   * @returns why not; null: it is done. */
  private async inTurn(
    work: Work,
    person: SignedIn,
    set: Offered,
    groupId: GroupId | null,
    enrolmentId: EnrolmentId,
  ): Promise<{ why: NoPlace; name: string } | null> {
    const { manager, now } = work;
    const groups = await manager.query<Counted[]>(
      `SELECT g."groupId" AS "id", g."name", g."isLocked", g."capacity", count(m."id")::int AS "members",
                coalesce(bool_or(m."enrolmentId" = $2), false) AS "isYours"
           FROM "set_group" g LEFT JOIN "membership" m ON m."groupId" = g."groupId" AND m."until" IS NULL
          WHERE g."setId" = $1 GROUP BY 1, 2, 3, 4`,
      [set.id, enrolmentId],
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
      hasHandedIn: await this.groupWork.work.hasHandedIn(manager, own.id, enrolmentId),
    };
    const why = whyNoPlace({ state: stateOf(set, now), from, to, placesElsewhere });
    if (why) return { why, name: to?.name ?? set.name };

    const place = { moves: [{ student: enrolmentId, from: own?.id ?? null, to: groupId }] };
    const isPlaced = await this.memberships.place(work, { set, place, by: person, why: null });
    assert(isPlaced, 'the holder of the set knows where its students are');
    return null;
  }

  /** Students of the course, and only where they may choose. */
  private async enter(
    person: SignedIn,
    setId: GroupSetId,
  ): Promise<{ set: Offered; enrolmentId: EnrolmentId }> {
    const set = await setOf(this.dataSource.manager, setId);
    const viewer = await this.viewers.find(person, set.courseId);
    if (!viewer || viewer.hasLeft || viewer.role !== 'student' || !isOffered(set)) throw problems.notFound();
    return { set, enrolmentId: viewer.enrolmentId };
  }

  private async viewOf(manager: EntityManager, set: Offered, enrolmentId: EnrolmentId): Promise<SignUpView> {
    const groups = await groupRows(manager, set.id);
    const seats = await seatsOf(manager, set.id);
    const seatsIn = groupedBy(seats, (seat) => seat.groupId as string);
    const yours = seats.find((seat) => seat.enrolmentId === enrolmentId)?.groupId ?? null;
    const state = stateOf(set, this.clock.now());
    const own = groups.find((group) => group.id === yours);
    const from = own
      ? {
          isLocked: own.isLocked,
          hasHandedIn: await this.groupWork.work.hasHandedIn(manager, own.id, enrolmentId),
        }
      : null;
    const why = state === 'open' ? whyNoPlace({ state, from, to: null, placesElsewhere: 0 }) : null;
    return {
      set: {
        id: set.id,
        name: set.name,
        description: set.isDescriptionShown ? set.description : '',
        opens: set.signUp.opens,
        closes: set.signUp.closes,
      },
      state,
      groups: groups.map((group) => {
        const members = seatsIn.get(group.id) ?? [];
        const areNamesShown = set.signUp.showsNames || group.id === yours;
        return {
          id: group.id,
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
      students: await countStudents(manager, set.courseId),
    };
  }
}

const isOffered = (set: GroupSetRow): set is Offered => set.signUp !== null && set.archivedAt === null;

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
    `SELECT s."groupId", s."enrolmentId", p."name", p."reading"
       FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId"
      WHERE s."setId" = $1 ORDER BY s."from", s."enrolmentId"`,
    [setId],
  );
