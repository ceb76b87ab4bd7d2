import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { CheckFound, CheckList, CheckView, DismissCheck } from '@jigsaw/contract/checks';
import { factsOf } from '@jigsaw/contract/sightFacts';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { Check } from '@jigsaw/core/checks';
import { checkedUntil, checksOf } from '@jigsaw/core/checks';
import type { CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import type { Instant } from '@jigsaw/core/release';
import type { SightFacts } from '@jigsaw/core/sightlines';
import { lockCourse, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Happenings } from '../platform/happenings.js';
import { KeptByCourse } from '../platform/keptByCourse.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { Kinds, writtenOfCourse } from '../release/index.js';
import { SightlinesService } from '../sightlines/index.js';
import { CheckDismissalRow } from './checks.rows.js';

/** What people do in their copies leaves who gets them, their dates and what is written as they are. */
const isInsideCopies = /^(post|page|part|file|mark|answers|call)\./;

/** What in a course its instructor will not have meant, and what of it they said may stay. */
@Injectable()
export class ChecksService {
  private readonly kept: KeptByCourse<CourseId, CheckList>;

  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly sightlines: SightlinesService,
    private readonly kinds: Kinds,
    private readonly clock: Clock,
    happenings: Happenings,
  ) {
    this.kept = new KeptByCourse(happenings, ({ type }) => (isInsideCopies.test(type) ? 'nothing' : 'all'));
  }

  /** How many there are that no one dismissed. */
  async count(person: SignedIn, courseId: CourseId): Promise<number> {
    const { checks } = await this.list(person, courseId);
    return checks.filter(({ dismissed }) => dismissed === null).length;
  }

  /** Every page of those who release shows how many there are, so it is kept until something happens that they hang on. */
  async list(person: SignedIn, courseId: CourseId): Promise<CheckList> {
    await this.viewers.staff(person, courseId, 'release');
    const now = this.clock.now().getTime();
    const lists = await this.kept.all(courseId, [courseId], now, async () => {
      const read = (manager: EntityManager) => this.of(manager, courseId);
      const { list, sight } = await this.dataSource.transaction('REPEATABLE READ', read);
      return new Map([[courseId, { value: list, until: checkedUntil({ sight, now }) }]]);
    });
    return sure(lists.get(courseId));
  }

  /** @throws conflict, where it is settled by now. */
  async dismiss(person: SignedIn, courseId: CourseId, { id, reason }: DismissCheck): Promise<CheckList> {
    const { enrolmentId } = await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async ({ manager, now: at, record }) => {
      await lockCourse(manager, courseId);
      const { list: now } = await this.of(manager, courseId);
      const check = now.checks.find((each) => each.id === id);
      if (!check)
        throw problems.conflict(
          'This is settled already, or something about it changed. Look at the list again.',
        );
      if (check.dismissed?.reason === reason) return now; // pressed twice
      if (check.dismissed)
        throw problems.conflict(
          `${check.dismissed.by} has dismissed this meanwhile: ${check.dismissed.reason}. To give another reason, check it again first.`,
        );
      await manager.insert(CheckDismissalRow, { courseId, checkId: id, reason, by: enrolmentId, at });
      await record({ type: 'check.dismissed', courseId, actorId: person.id, facts: { checkId: id } });
      return (await this.of(manager, courseId)).list;
    });
  }

  /** It is to be checked again; nothing happens where no one had dismissed it. */
  async takeUp(person: SignedIn, courseId: CourseId, checkId: string): Promise<CheckList> {
    await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.delete(CheckDismissalRow, { courseId, checkId });
      if (affected)
        await record({ type: 'check.taken-up', courseId, actorId: person.id, facts: { checkId } });
      return (await this.of(manager, courseId)).list;
    });
  }

  private async of(
    manager: EntityManager,
    courseId: CourseId,
  ): Promise<{ list: CheckList; sight: SightFacts }> {
    const view = await this.sightlines.of(manager, courseId);
    const written = await writtenOfCourse(manager, this.kinds, courseId);
    const sight = factsOf(view);
    const found = checksOf({ sight, written, now: Date.parse(view.serverTime) });
    const dismissed = keyedBy(await manager.findBy(CheckDismissalRow, { courseId }), (row) => row.checkId);
    const nameOf = keyedBy(view.people, (each) => each.enrolmentId);
    const checks = found.map((check): CheckView => {
      const id = idOf(check);
      const row = dismissed.get(id);
      const by = row && (nameOf.get(row.by)?.name ?? '');
      return {
        id,
        found: viewOf(check),
        dismissed: row ? { reason: row.reason, by: by ?? '', at: row.at.toISOString() } : null,
      };
    });
    return { list: { checks, ...namesIn(view, checks) }, sight };
  }
}

/** The same as long as all of what is amiss is the same, in whatever order people and groups are read, so that what was dismissed comes up again when
 * anything of it changes, and not before. */
function idOf(check: Check): string {
  const inOrder = (key: string, value: unknown) =>
    key === 'inGroups' ? undefined : Array.isArray(value) ? value.toSorted() : value; // where it shows, not what is amiss
  return createHash('sha256').update(JSON.stringify(check, inOrder)).digest('hex').slice(0, 32);
}

/** So many are named; of more there is the number. */
const mostNamed = 3;
const some = (students: readonly EnrolmentId[]) => ({
  count: students.length,
  named: students.length <= mostNamed ? [...students] : [],
});

function viewOf(check: Check): CheckFound {
  switch (check.code) {
    case 'live-too-late':
      return { ...check, goesLiveAt: iso(check.goesLiveAt), at: iso(check.at) };
    case 'due-before-open':
      return { ...check, due: iso(check.due), opens: iso(check.opens) };
    case 'due-together':
      return {
        ...check,
        activityIds: [...check.activityIds],
        students: some(check.students),
        inGroups: [...check.inGroups],
        due: [iso(check.due[0]), iso(check.due[1])],
      };
    case 'unplaced':
      return { ...check, students: some(check.students), activityIds: [...check.activityIds] };
    case 'groups-left-out':
    case 'line-for-no-one':
    case 'cannot-be-done':
      return { ...check, groupIds: [...check.groupIds] };
    case 'typed-placeholder':
      return { ...check, words: [...check.words] };
    default:
      return check;
  }
}

/** What those things are called that the checks are about, and no others. */
function namesIn(view: SightlinesView, checks: readonly CheckView[]): Omit<CheckList, 'checks'> {
  const text = JSON.stringify(checks);
  const isNamed = (id: string) => text.includes(id);
  return {
    activities: view.activities
      .filter(({ activityId }) => isNamed(activityId))
      .map(({ activityId, title, kind }) => ({ activityId, title, kind })),
    groups: view.sets.flatMap(({ setId, groups }) =>
      groups.filter(({ groupId }) => isNamed(groupId)).map((group) => ({ ...group, setId })),
    ),
    sets: view.sets.map(({ setId, name }) => ({ setId, name })),
    people: view.people
      .filter(({ enrolmentId }) => isNamed(enrolmentId))
      .map(({ enrolmentId, name }) => ({ enrolmentId, name })),
    audiences: view.audiences.map(({ audienceId, name }) => ({ audienceId, name })),
  };
}

const iso = (at: Instant) => new Date(at).toISOString();
