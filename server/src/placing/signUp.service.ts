import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { SignUpList, SignUpView } from '@jigsaw/contract/placing';
import { halfDaysSaid } from '@jigsaw/core/course';
import type { HalfDay } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { NoPlace } from '@jigsaw/core/placing';
import { sayNoPlace, whyNoPlace } from '@jigsaw/core/placing';
import { countStudents, courseOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { groupRows, groupsOfSets, lockSet, setOf, setsOfCourse } from '../sets/index.js';
import { AwaitedPlaces } from './awaitedPlaces.js';
import { GroupWork } from './groupWork.js';
import { Memberships } from './memberships.js';
import { isOffered, stateOf } from './offered.js';
import type { Offered } from './offered.js';

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
    private readonly awaited: AwaitedPlaces,
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

  /** To be told when a place in a full group comes free, or no longer.
   * @throws not-found for a group in which they may not choose a place, stale-write for one that has a place free. */
  async await(
    person: SignedIn,
    setId: GroupSetId,
    groupId: GroupId,
    isAwaited: boolean,
  ): Promise<SignUpView> {
    const { enrolmentId } = await this.enter(person, setId);
    const { view, isFree } = await this.unitOfWork.run(async ({ manager, record }) => {
      const set = await lockSet(manager, setId);
      if (!isOffered(set)) throw problems.notFound();
      const before = await this.viewOf(manager, set, enrolmentId);
      const group = before.groups.find((each) => each.id === groupId);
      if (!group) throw problems.notFound();
      const isFree = !group.isLocked && (group.capacity === null || group.members < group.capacity);
      if (isAwaited && (isFree || before.yours === groupId || before.state !== 'open'))
        return { view: before, isFree: true };
      await this.awaited.await(manager, groupId, enrolmentId, isAwaited);
      const { courseId } = set;
      await record({
        type: 'places.changed',
        courseId,
        actorId: person.id,
        subjectId: setId,
        isForAll: true,
      });
      return { view: await this.viewOf(manager, set, enrolmentId), isFree: false };
    });
    if (isFree)
      throw problems.staleWrite(
        view,
        'There is nothing to wait for. The page shows the places as they are now.',
      );
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
    if (groupId !== null) await this.awaited.await(manager, groupId, enrolmentId, false);
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
    const free = await freeHalfDaysOf(manager, set.courseId, enrolmentId);
    const awaited = await this.awaited.of(manager, set.id, enrolmentId);
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
          details: group.details,
          fits: free && group.details.halfDay && free.has(group.details.halfDay),
          isAwaited: awaited.get(group.id)?.isOwn ?? false,
          awaiting: awaited.get(group.id)?.count ?? 0,
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
      latest: await latestIn(manager, set.id, this.clock.now()),
      bound: why && sayNoPlace(why, set.name),
      chosen: new Set(seats.map((seat) => seat.enrolmentId)).size,
      students: await countStudents(manager, set.courseId),
    };
  }
}

const seatsOf = (manager: EntityManager, setId: GroupSetId): Promise<Seat[]> =>
  manager.query<Seat[]>(
    `SELECT s."groupId", s."enrolmentId", p."name", p."reading"
       FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId"
      WHERE s."setId" = $1 ORDER BY s."from", s."enrolmentId"`,
    [setId],
  );

/** When this student is free, as far as the roster says so; null: it does not. */
async function freeHalfDaysOf(
  manager: EntityManager,
  courseId: CourseId,
  enrolmentId: EnrolmentId,
): Promise<ReadonlySet<HalfDay> | null> {
  const [student] = await manager.query<{ attributes: Record<string, string> }[]>(
    `SELECT "attributes" FROM "present_student" WHERE "enrolmentId" = $1`,
    [enrolmentId],
  );
  const { attributeKinds } = await courseOf(manager, courseId);
  return student ? halfDaysSaid(student.attributes, attributeKinds) : null;
}

const latestShown = 8;
const latestMs = 3_600_000;

/** Places that were taken and came free in the last hour, without names, the latest first. */
async function latestIn(manager: EntityManager, setId: GroupSetId, now: Date): Promise<SignUpView['latest']> {
  const rows = await manager.query<{ at: Date; groupId: GroupId; what: 'taken' | 'came-free' | 'filled' }[]>(
    `WITH "turned" AS (
       SELECT "from" AS "at", "groupId", true AS "isTaken" FROM "membership" WHERE "setId" = $1 AND "from" > $2
       UNION ALL SELECT "until", "groupId", false FROM "membership" WHERE "setId" = $1 AND "until" > $2
     ), "latest" AS (
       SELECT *, "at" = max("at") OVER (PARTITION BY "groupId") AS "isLast" FROM "turned" ORDER BY "at" DESC LIMIT ${latestShown}
     )
     SELECT DISTINCT l."at", l."groupId",
            CASE WHEN NOT l."isTaken" THEN 'came-free'
                 WHEN l."isLast" AND g."capacity" <= (SELECT count(*) FROM "seat" s WHERE s."groupId" = l."groupId") THEN 'filled'
                 ELSE 'taken' END AS "what"
       FROM "latest" l JOIN "set_group" g ON g."groupId" = l."groupId" ORDER BY l."at" DESC`,
    [setId, new Date(now.getTime() - latestMs)],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
