import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { ChangeSince, DeskRow, DeskView, MarkView } from '@jigsaw/contract/marks';
import type { CopyId, EnrolmentId, ReleaseId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { KeptSheet, PersonMark } from '@jigsaw/core/marks';
import {
  changesSince,
  isStale,
  markState,
  memberMark,
  needsMarking,
  sayChange,
  unitMark,
} from '@jigsaw/core/marks';
import { setsOfAudience } from '@jigsaw/core/release';
import { authorsById, toldApart, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { accountNames } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { eventsAbout } from '../platform/events.js';
import { problems } from '../platform/problems.js';
import type { CopyAccess, ReleaseRow, Unit } from '../release/index.js';
import { Gate, Kinds, lastDueOf, membersOfCopies, plainDecimal, releaseOf } from '../release/index.js';
import { CopyHeads } from '../rooms/index.js';
import { groupTags, inOrderOf } from '../sets/index.js';
import { sayEvent, told } from './history.js';
import type { Marking } from './markings.js';
import { Markings } from './markings.js';
import { ReleasedMarkRow } from './marks.rows.js';

@Injectable()
export class DeskService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly heads: CopyHeads,
    private readonly markings: Markings,
    private readonly clock: Clock,
  ) {}

  async queue(person: SignedIn, releaseId: ReleaseId): Promise<DeskView> {
    const release = await releaseOf(this.dataSource.manager, releaseId);
    await this.viewers.staff(person, release.courseId, 'read-course');
    const { entered: own } = await this.gate.enterAll(person, release.courseId, { releases: [releaseId] });
    const [first] = own;
    if (!first || first.activity.points === null) throw problems.notFound();
    const { activity } = first;
    return {
      releaseId,
      kind: activity.kind,
      title: activity.title,
      points: plainDecimal(sure(activity.points)),
      due: activity.due?.toISOString() ?? null,
      markFor: this.kinds.markFor(first),
      isWithdrawn: first.release.state === 'withdrawn',
      rows: await this.rows(own),
    };
  }

  async read(person: SignedIn, copyId: CopyId, unit: Unit): Promise<MarkView> {
    const access = await this.gate.enterAsStaff(person, copyId, 'read-course');
    const { manager } = this.dataSource;
    return this.view(manager, await this.markings.one(access, unit, manager));
  }

  /** By group, and within a group by name; a copy for all is sorted by name alone. */
  private async rows(accesses: readonly CopyAccess[]): Promise<DeskRow[]> {
    const { manager } = this.dataSource;
    const markings = await this.markings.of(accesses, manager);
    const tags = await groupTags(
      manager,
      accesses.map((access) => access.copy.groupId),
    );
    const students = markings.flatMap(({ unit }) => (unit === 'group' ? [] : [unit]));
    const student = await authorsById(manager, students, '');
    const apart = await toldApart(manager, sure(accesses[0]).release.courseId);
    const homeOf = await homeGroups(manager, sure(accesses[0]).release, students);
    const byGroup = inOrderOf(tags);
    return markings
      .map((marking): DeskRow => {
        const { access, unit, work } = marking;
        const { latest } = work;
        const who = unit === 'group' ? null : student(unit);
        const homeId = access.copy.groupId === null && unit !== 'group' ? homeOf(unit) : null;
        return {
          copyId: access.copy.id,
          unit,
          group: (access.copy.groupId === null ? homeId : tags.get(access.copy.groupId)) ?? null,
          student: who && { name: apart(who.enrolmentId, who.name), reading: who.reading },
          people: [...work.credited],
          work: latest && {
            at: latest.at.toISOString(),
            isComplete: work.isComplete,
            lateMinutes: work.late.minutes,
            deduction: work.late.deduction,
            by: latest.by,
          },
          mark: { state: markState(marking.sheet), groupMark: unitMark(marking.sheet) },
          suggested:
            marking.sheet.rubric === null && needsMarking(marking.sheet)
              ? (work.suggestion?.mark ?? null)
              : null,
          needsYou: needsMarking(marking.sheet),
        };
      })
      .sort(
        (a, b) => byGroup(a.group, b.group) || (a.student?.name ?? '').localeCompare(b.student?.name ?? ''),
      );
  }

  /** The whole sheet with what stands beside it. */
  async view(manager: EntityManager, marking: Marking): Promise<MarkView> {
    const { access, mark, work, unit } = marking;
    const member = await authorsById(manager, work.credited, '');
    const apart = await toldApart(manager, access.release.courseId);
    const membersOf = await membersOfCopies(manager, [access]);
    const stillIn = new Set<string>(membersOf(access.copy.id));
    const released = await manager.findOne(ReleasedMarkRow, {
      where: { copyId: access.copy.id, ...(unit === 'group' ? {} : { enrolmentId: unit }) },
      order: { releasedAt: 'DESC' },
    });
    const evidence = (
      await this.kinds.evidence({ accesses: [access], manager, now: this.clock.now(), membersOf })
    ).get(access.copy.id);
    const due = lastDueOf(access, work.credited);
    return {
      copy: await this.heads.headOf(access, [access]),
      points: marking.sheet.points,
      unit,
      state: markState(marking.sheet),
      groupMark: unitMark(marking.sheet),
      typedMark: marking.sheet.typed,
      overrideReason: mark?.overrideReason ?? '',
      picks: mark?.picks ?? {},
      feedback: mark?.feedback ?? '',
      lateDeduction: work.late.deduction,
      lateMinutes: work.late.minutes,
      ownLate: [...(work.ownLate ?? [])].map(([enrolmentId, late]) => ({ enrolmentId, ...late })),
      suggestion: work.suggestion,
      version: mark?.version ?? 0,
      isStale: isStale(marking.sheet),
      beforeDue: due !== null && this.clock.now().getTime() < due,
      releasedAt: released?.releasedAt.toISOString() ?? null,
      changes: await this.changes(manager, marking.sheet),
      members: work.credited
        .map((enrolmentId) => ({
          member: { ...member(enrolmentId), name: apart(enrolmentId, member(enrolmentId).name) },
          isStillInGroup: stillIn.has(enrolmentId),
          evidence: [...(evidence?.get(enrolmentId) ?? [])],
          adjustment: marking.sheet.adjustments.get(enrolmentId) ?? null,
          ...mutable(memberMark(marking.sheet, enrolmentId)),
        }))
        .sort((a, b) => a.member.name.localeCompare(b.member.name)),
      ...(await this.history(manager, access.copy.id, unit, (id) =>
        work.credited.includes(id as EnrolmentId) ? member(id).name : 'Someone no longer credited',
      )),
    };
  }

  /** In words, who releasing it again would give something else. */
  async changes(manager: EntityManager, sheet: KeptSheet): Promise<ChangeSince[]> {
    const changes = changesSince(sheet);
    if (changes.length === 0) return [];
    const ids = changes.map((change) => change.enrolmentId as EnrolmentId);
    const member = await authorsById(manager, ids, '');
    return changes
      .map((change) => ({ member: member(change.enrolmentId), says: sayChange(change) }))
      .sort((a, b) => a.member.name.localeCompare(b.member.name));
  }

  private async history(
    manager: EntityManager,
    copyId: CopyId,
    unit: Unit,
    memberOf: (enrolmentId: string) => string,
  ): Promise<Pick<MarkView, 'history' | 'changedBy'>> {
    const events = await eventsAbout(manager, copyId, 'mark.', { unit }, 200);
    const nameOf = await accountNames(
      manager,
      events.flatMap((event) => event.actorId ?? []),
    );
    const [latest] = events;
    return {
      changedBy: latest ? (nameOf.get(latest.actorId ?? '') ?? '') : null,
      history: told(events)
        .flatMap(({ at, actorId, type, facts }) => {
          const what = sayEvent(type, facts, unit, memberOf);
          return what === null ? [] : [{ at: at.toISOString(), by: nameOf.get(actorId ?? '') ?? '', what }];
        })
        .slice(0, 50),
    };
  }
}

/** Where each student sits in the sets of a release that gives one copy to all: the desk sorts them by it. Of several places, that in the set
 * that is named first. */
async function homeGroups(
  manager: EntityManager,
  { mode, audience }: ReleaseRow,
  students: readonly EnrolmentId[],
) {
  const setIds = setsOfAudience(audience);
  if (mode !== 'common' || setIds.length === 0 || students.length === 0) return () => null;
  const rows = await manager.query<{ enrolmentId: EnrolmentId; groupId: GroupId }[]>(
    `SELECT "enrolmentId", "groupId" FROM "seat" WHERE "setId" = ANY($1) AND "enrolmentId" = ANY($2)
      ORDER BY array_position($1, "setId") DESC`,
    [setIds, students],
  );
  const tags = await groupTags(
    manager,
    rows.map((row) => row.groupId),
  );
  // The last one put into a map stays.
  const home = new Map(rows.map((row) => [row.enrolmentId, tags.get(row.groupId) ?? null]));
  return (id: EnrolmentId) => home.get(id) ?? null;
}

const mutable = ({ mark, steps }: PersonMark) => ({ mark, steps: [...steps] });
