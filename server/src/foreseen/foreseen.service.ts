import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { Foreseen, HeldView, Planned } from '@jigsaw/contract/foreseen';
import { mostGroups, mostNamed } from '@jigsaw/contract/foreseen';
import { factsOf } from '@jigsaw/contract/sightFacts';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { Held } from '@jigsaw/core/foreseen';
import { differencesOf, foldAlike } from '@jigsaw/core/foreseen';
import type { CourseId } from '@jigsaw/core/ids';
import { unreachable } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { BoardService } from '../placing/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { ActivitiesService, ReleaseService } from '../release/index.js';
import { setOfCourse } from '../sets/index.js';
import { SightlinesService } from '../sightlines/index.js';

/** Who would have what else after an act. It is carried out as if it had been sent, looked at, and undone within its transaction: whatever would refuse it refuses
 * it here, saved audiences reach who they would reach, and no one hears of it. */
@Injectable()
export class ForeseenService {
  constructor(
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly sightlines: SightlinesService,
    private readonly boards: BoardService,
    private readonly activities: ActivitiesService,
    private readonly releases: ReleaseService,
  ) {}

  /** @throws what the act itself would. */
  async foresee(person: SignedIn, courseId: CourseId, planned: Planned): Promise<Foreseen> {
    await this.viewers.staff(person, courseId, 'release');
    const { before, after } = await this.unitOfWork.foresee(
      async (manager) => {
        await this.refuseElsewhere(manager, person, courseId, planned);
        await this.carryOut(person, planned);
      },
      (manager) => this.sightlines.of(manager, courseId),
    );
    return viewOf(before, after);
  }

  /** What is another course's is not here. */
  private async refuseElsewhere(
    manager: EntityManager,
    person: SignedIn,
    courseId: CourseId,
    planned: Planned,
  ): Promise<void> {
    if ('setId' in planned) await setOfCourse(manager, planned.setId, courseId);
    else if ((await this.activities.forStaff(person, planned.activityId)).courseId !== courseId)
      throw problems.notFound();
  }

  private carryOut(person: SignedIn, planned: Planned): Promise<unknown> {
    switch (planned.act) {
      case 'place':
        return this.boards.place(person, planned.setId, { moves: planned.moves, why: '', credit: 'stays' });
      case 'withdraw':
        return this.releases.withdraw(person, planned.activityId);
      case 'reach': {
        const { to, outsiders, was } = planned;
        return this.releases.changeReach(person, planned.activityId, { to, outsiders, was });
      }
      default:
        return unreachable(planned);
    }
  }
}

function viewOf(before: SightlinesView, after: SightlinesView): Foreseen {
  const differences = differencesOf(factsOf(before), factsOf(after), Date.parse(after.serverTime));
  const people = keyedBy([...before.people, ...after.people], ({ enrolmentId }) => enrolmentId);
  const titles = keyedBy([...before.activities, ...after.activities], ({ activityId }) => activityId);
  const alike = groupedBy(differences, ({ activityId, before: was, after: is }) =>
    JSON.stringify([activityId, was, is]),
  );
  const told = [...alike.values()].map((all) => ({ ...sure(all[0]), students: all.length, all }));
  const changes = foldAlike(told, mostGroups).map(({ first, students, eachOf }) => ({
    activityId: first.activityId,
    title: titles.get(first.activityId)?.title ?? '',
    students: {
      count: students,
      named: students > mostNamed ? [] : first.all.map((each) => nameOf(people.get(each.enrolmentId))),
    },
    eachOf,
    before: heldView(first.before),
    after: heldView(first.after),
  }));
  const named = new Set(changes.flatMap(groupsIn));
  return {
    changes,
    groups: after.sets.flatMap(({ groups }) => groups.filter(({ groupId }) => named.has(groupId))),
  };
}

const nameOf = (person: SightlinesView['people'][number] | undefined) => ({
  name: person?.name ?? '',
  reading: person?.reading ?? null,
});
const groupsIn = ({ before, after }: Record<'before' | 'after', HeldView>) =>
  [...before.own, ...after.own].flatMap(({ groupId }) => groupId ?? []);
const heldView = ({ own, ...held }: Held): HeldView => ({
  ...held,
  own: own.map(({ groupId, due }) => ({ groupId, due: due === null ? null : new Date(due).toISOString() })),
});
