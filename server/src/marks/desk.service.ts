import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { DeskList, DeskRow, DeskView, MarkView, ReleaseMarks, SaveMark } from '@jigsaw/contract/marks';
import type { ActivityId, CopyId, CourseId, EnrolmentId, ReleaseId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { Missing, PersonMark } from '@jigsaw/core/marks';
import {
  excessIn,
  isStale,
  markState,
  memberMark,
  missingIn,
  needsMarking,
  sayMissing,
  unitMark,
} from '@jigsaw/core/marks';
import { isReleased } from '@jigsaw/core/release';
import { authorsById, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { accountNames } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { eventsAbout } from '../platform/events.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess, ReleaseRow, Unit } from '../release/index.js';
import {
  Gate,
  hearersOf,
  Kinds,
  lockCopy,
  membersOfCopies,
  plainDecimal,
  releaseOf,
} from '../release/index.js';
import { CopyHeads } from '../rooms/index.js';
import { groupTags } from '../sets/index.js';
import type { Marking } from './markings.js';
import { Markings } from './markings.js';
import { MarkAdjustmentRow, MarkRow, ReleasedMarkRow } from './marks.rows.js';

@Injectable()
export class DeskService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly heads: CopyHeads,
    private readonly markings: Markings,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<DeskList> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { entered } = await this.gate.enterAll(person, courseId);
    const out = entered.filter((access) => isReleased(access.release));
    const markings = await this.markings.of(out, this.dataSource.manager);
    const ofRelease = groupedBy(markings, (marking) => marking.access.release.id);
    const releases = new Map(
      out.flatMap((access) =>
        access.activity.points === null ? [] : [[access.release.id, access] as const],
      ),
    );
    return {
      activities: [...releases.values()]
        .sort((a, b) => (a.activity.due?.getTime() ?? Infinity) - (b.activity.due?.getTime() ?? Infinity))
        .map((access) => {
          const own = ofRelease.get(access.release.id) ?? [];
          return {
            activityId: access.activity.id as ActivityId,
            releaseId: access.release.id as ReleaseId,
            kind: access.activity.kind,
            title: access.activity.title,
            points: plainDecimal(access.activity.points!),
            toMark: own.filter(({ sheet }) => needsMarking(sheet)).length,
            unitCount: own.length,
            markFor: this.kinds.markFor(access),
          };
        }),
    };
  }

  async queue(person: SignedIn, releaseId: ReleaseId): Promise<DeskView> {
    const release = await releaseOf(this.dataSource.manager, releaseId);
    await this.viewers.staff(person, release.courseId, 'read-course');
    const { entered } = await this.gate.enterAll(person, release.courseId as CourseId);
    const own = entered.filter((access) => access.release.id === releaseId);
    const [first] = own;
    if (!first || first.activity.points === null) throw problems.notFound();
    const { activity } = first;
    return {
      releaseId,
      kind: activity.kind,
      title: activity.title,
      points: plainDecimal(activity.points!),
      due: activity.due?.toISOString() ?? null,
      markFor: this.kinds.markFor(first),
      rows: await this.rows(own),
    };
  }

  async read(person: SignedIn, copyId: CopyId, unit: Unit): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'read-course');
    return this.view(
      this.dataSource.manager,
      access,
      await this.marking(this.dataSource.manager, access, unit),
    );
  }

  /** Saves the whole sheet as it is typed. Nothing of it reaches a student before it is released. */
  async save(person: SignedIn, copyId: CopyId, unit: Unit, sheet: SaveMark): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'mark');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await lockCopy(manager, copyId);
      const marking = await this.marking(manager, access, unit);
      const known = marking.mark;
      if ((known?.version ?? 0) !== sheet.version)
        throw problems.staleWrite(
          await this.view(manager, access, marking),
          'Someone else marked this meanwhile. Both versions are here; choose one.',
        );
      refuseImpossible(marking, sheet);

      const columns = {
        typedMark: sheet.typedMark,
        overrideReason: sheet.overrideReason,
        picks: json(sheet.picks),
        feedback: sheet.feedback,
        version: sheet.version + 1,
        workAt: marking.work.latest?.at ?? null,
        updatedAt: now,
      };
      if (known) await manager.update(MarkRow, known.id, columns);
      else
        await manager.insert(MarkRow, {
          id: newId(),
          copyId,
          enrolmentId: unit === 'group' ? null : unit,
          ...columns,
          releasedVersion: null,
        });
      await manager.delete(MarkAdjustmentRow, { copyId, enrolmentId: In([...marking.work.credited]) });
      if (sheet.adjustments.length > 0) {
        await manager.insert(
          MarkAdjustmentRow,
          sheet.adjustments.map(({ enrolmentId, adjustment }) => ({
            copyId,
            enrolmentId,
            adjustment: json(adjustment),
          })),
        );
      }
      const after = await this.marking(manager, access, unit);
      await record({
        type: 'mark.drafted',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { unit, from: unitMark(marking.sheet), to: unitMark(after.sheet), version: sheet.version + 1 },
      });
      return this.view(manager, access, after);
    });
  }

  /** Gives each credited member their mark. Later edits reach them only when released again. */
  async release(person: SignedIn, copyId: CopyId, unit: Unit, { version }: ReleaseMarks): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'mark');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await lockCopy(manager, copyId);
      const marking = await this.marking(manager, access, unit);
      const { mark, work } = marking;
      if (!mark) throw problems.invalidInput('There is no mark to release yet.');
      if (mark.version !== version)
        throw problems.staleWrite(
          await this.view(manager, access, marking),
          'This mark was changed meanwhile. Look at it once more before you release it.',
        );
      await this.refuseIncomplete(manager, marking);

      const rubric = marking.sheet.rubric;
      await this.takeBack(manager, copyId, unit);
      if (work.credited.length > 0) {
        await manager.insert(
          ReleasedMarkRow,
          work.credited.map((enrolmentId) => {
            const result = memberMark(marking.sheet, enrolmentId);
            return {
              copyId,
              enrolmentId,
              groupMark: unitMark(marking.sheet),
              mark: result.mark,
              steps: json(result.steps) as object[],
              rubric: rubric && json({ rubric, picks: mark.picks }),
              feedback: mark.feedback,
              lateMinutes: work.late.minutes,
              handedInAt: work.latest?.at ?? null,
              releasedAt: now,
              releasedBy: person.id,
              seenAt: null,
            };
          }),
        );
      }
      await manager.update(MarkRow, mark.id, { releasedVersion: mark.version });
      await record({
        type: 'mark.released',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { unit, students: work.credited.length, groupMark: unitMark(marking.sheet) },
        ...hearersOf(access),
      });
      return this.view(manager, access, await this.marking(manager, access, unit));
    });
  }

  async recall(person: SignedIn, copyId: CopyId, unit: Unit): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'mark');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const marking = await this.marking(manager, access, unit);
      const students = await this.takeBack(manager, copyId, unit);
      if (marking.mark) await manager.update(MarkRow, marking.mark.id, { releasedVersion: null });
      await record({
        type: 'mark.recalled',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { unit, students },
        ...hearersOf(access),
      });
      return this.view(manager, access, await this.marking(manager, access, unit));
    });
  }

  /** What was released for this unit: for the group all of the copy's, whoever is credited now. */
  private async takeBack(manager: EntityManager, copyId: string, unit: Unit): Promise<number> {
    const { affected } = await manager.delete(ReleasedMarkRow, {
      copyId,
      ...(unit === 'group' ? {} : { enrolmentId: unit }),
    });
    return affected ?? 0;
  }

  private async enter(person: SignedIn, copyId: CopyId, act: 'mark' | 'read-course'): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    await this.viewers.staff(person, access.release.courseId, act);
    if (access.activity.points === null) throw problems.notFound();
    return access;
  }

  private async refuseIncomplete(manager: EntityManager, { sheet, work }: Marking): Promise<void> {
    const missing = missingIn(sheet);
    if (missing.length === 0) return;
    const member = await authorsById(manager, work.credited, '');
    const issues = missing.map((each) => ({
      path: pathOf(each),
      message: sayMissing(each, sheet, (id) => member(id).name),
    }));
    throw problems.invalidInput(issues[0]!.message, { issues });
  }

  /** @throws not-found for a unit that this copy does not have. */
  private async marking(manager: EntityManager, access: CopyAccess, unit: Unit): Promise<Marking> {
    const marking = (await this.markings.of([access], manager)).find((each) => each.unit === unit);
    if (!marking) throw problems.notFound();
    return marking;
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
    const homeOf = await homeGroups(manager, accesses[0]!.release, students);
    return markings
      .map((marking): DeskRow => {
        const { access, unit, work } = marking;
        const { latest } = work;
        const who = unit === 'group' ? null : student(unit);
        const homeId = access.copy.groupId === null && unit !== 'group' ? homeOf(unit) : null;
        return {
          copyId: access.copy.id as CopyId,
          unit,
          group: (access.copy.groupId === null ? homeId : tags.get(access.copy.groupId)) ?? null,
          student: who && { name: who.name, reading: who.reading },
          work: latest && {
            at: latest.at.toISOString(),
            isComplete: work.isComplete,
            lateMinutes: work.late.minutes,
            deduction: work.late.deduction,
            by: latest.by,
          },
          mark: { state: markState(marking.sheet), groupMark: unitMark(marking.sheet) },
          needsYou: needsMarking(marking.sheet),
        };
      })
      .sort(
        (a, b) =>
          (a.group?.number ?? Infinity) - (b.group?.number ?? Infinity) ||
          (a.student?.name ?? '').localeCompare(b.student?.name ?? ''),
      );
  }

  private async view(manager: EntityManager, access: CopyAccess, marking: Marking): Promise<MarkView> {
    const { mark, work, unit } = marking;
    const member = await authorsById(manager, work.credited, '');
    const membersOf = await membersOfCopies(manager, [access]);
    const stillIn = new Set<string>(membersOf(access.copy.id));
    const released = await manager.findOneBy(ReleasedMarkRow, {
      copyId: access.copy.id,
      ...(unit === 'group' ? {} : { enrolmentId: unit }),
    });
    const evidence = (
      await this.kinds.evidence({ accesses: [access], manager, now: this.clock.now(), membersOf })
    ).get(access.copy.id);
    return {
      copy: await this.heads.headOf(access, [access]),
      points: marking.sheet.points,
      unit,
      state: markState(marking.sheet),
      groupMark: unitMark(marking.sheet),
      typedMark: marking.sheet.typed,
      overrideReason: mark?.overrideReason ?? '',
      picks: (mark?.picks ?? {}) as MarkView['picks'],
      feedback: mark?.feedback ?? '',
      lateDeduction: work.late.deduction,
      lateMinutes: work.late.minutes,
      suggestion: work.suggestion,
      version: mark?.version ?? 0,
      isStale: isStale(marking.sheet),
      beforeDue: access.schedule.due !== null && this.clock.now().getTime() < access.schedule.due,
      releasedAt: released?.releasedAt.toISOString() ?? null,
      members: work.credited
        .map((enrolmentId) => ({
          member: member(enrolmentId),
          isStillInGroup: stillIn.has(enrolmentId),
          evidence: [...(evidence?.get(enrolmentId) ?? [])],
          adjustment: marking.sheet.adjustments.get(enrolmentId) ?? null,
          ...mutable(memberMark(marking.sheet, enrolmentId)),
        }))
        .sort((a, b) => a.member.name.localeCompare(b.member.name)),
      history: await this.history(manager, access.copy.id, unit),
    };
  }

  private async history(manager: EntityManager, copyId: string, unit: Unit): Promise<MarkView['history']> {
    const events = await eventsAbout(manager, copyId, 'mark.', { unit }, 50);
    const nameOf = await accountNames(
      manager,
      events.flatMap((event) => event.actorId ?? []),
    );
    return events
      .filter((row) => row.type !== 'mark.drafted' || row.facts['from'] !== row.facts['to'])
      .map((row) => ({
        at: row.at.toISOString(),
        by: nameOf.get(row.actorId ?? '') ?? '',
        what: sayEvent(row.type, row.facts),
      }));
  }
}

/** Where each student sits in the set of a release that gives one copy to all: the desk sorts them by it. */
async function homeGroups(manager: EntityManager, release: ReleaseRow, students: readonly EnrolmentId[]) {
  if (release.mode !== 'common' || release.setId === null || students.length === 0) return () => null;
  const rows = await manager.query<{ enrolmentId: string; groupId: string }[]>(
    `SELECT "enrolmentId", "groupId" FROM "seat" WHERE "setId" = $1 AND "enrolmentId" = ANY($2)`,
    [release.setId, students],
  );
  const tags = await groupTags(
    manager,
    rows.map((row) => row.groupId),
  );
  const home = new Map(rows.map((row) => [row.enrolmentId, tags.get(row.groupId) ?? null]));
  return (id: string) => home.get(id) ?? null;
}

/** What no marker can mean: more points than there are, and people who are not credited. */
function refuseImpossible({ sheet, access, work }: Marking, typed: SaveMark): void {
  const excess = excessIn({ ...sheet, typed: typed.typedMark, picks: typed.picks });
  if (excess?.code === 'above-points')
    throw problems.invalidInput(
      `${excess.mark} is above the ${sheet.points} points of this ${access.activity.kind}.`,
      { issues: [{ path: 'typedMark', message: `Write a number from 0 to ${sheet.points}.` }] },
    );
  if (excess)
    throw problems.invalidInput(`${excess.points} is above the ${excess.most} points of ${excess.name}.`, {
      issues: [{ path: `picks.${excess.criterionId}`, message: `Write a number from 0 to ${excess.most}.` }],
    });
  const credited = new Set<string>(work.credited);
  if (typed.adjustments.some((each) => !credited.has(each.enrolmentId))) throw problems.notFound();
}

/** The field of the sheet that wants something. */
function pathOf(missing: Missing): string {
  if (missing.code === 'adjustment-reason') return missing.enrolmentId;
  return missing.code === 'mark' ? 'typedMark' : 'overrideReason';
}

const mutable = ({ mark, steps }: PersonMark) => ({ mark, steps: [...steps] });

function sayEvent(type: string, facts: Record<string, unknown>): string {
  const said = (value: unknown) => (typeof value === 'string' ? plainDecimal(value) : 'none');
  const students = facts['students'] === 1 ? '1 student' : `${String(facts['students'])} students`;
  if (type === 'mark.released') return `Released to ${students}`;
  if (type === 'mark.recalled') return `Recalled from ${students}`;
  return `${facts['unit'] === undefined || facts['unit'] === 'group' ? 'Group mark' : 'Mark'} ${said(facts['from'])} → ${said(facts['to'])}`;
}
