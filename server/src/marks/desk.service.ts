import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { DeskList, DeskRow, DeskView, MarkView, ReleaseMarks, SaveMark } from '@jigsaw/contract/marks';
import type { ActivityId, CopyId, CourseId, ReleaseId } from '@jigsaw/core/ids';
import { Decimal } from 'decimal.js';
import type { PersonMark } from '@jigsaw/core/marks';
import { groupTags, membersById, membersOf, WorkReader } from '../handin/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { EventRow } from '../platform/event.rows.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, plainDecimal, ReleaseRow } from '../release/index.js';
import { Viewers } from '../roster/index.js';
import type { Marking } from './markings.js';
import { markOf, Markings } from './markings.js';
import { MarkAdjustmentRow, MarkRow, ReleasedMarkRow } from './marks.rows.js';

@Injectable()
export class DeskService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly work: WorkReader,
    private readonly markings: Markings,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<DeskList> {
    await this.viewers.staff(person, courseId, 'read-course');
    const { entered } = await this.gate.enterAll(person, courseId);
    const rows = await this.rows(entered);
    const releases = new Map(entered.map((access) => [access.release.id, access]));
    return {
      activities: [...releases.values()]
        .filter((access) => access.release.state !== 'draft' && access.release.state !== 'withdrawn')
        .sort((a, b) => (a.activity.due?.getTime() ?? Infinity) - (b.activity.due?.getTime() ?? Infinity))
        .map(({ release, activity }) => {
          const own = rows.filter((row) => row.releaseId === release.id);
          return {
            activityId: activity.id as ActivityId,
            releaseId: release.id as ReleaseId,
            title: activity.title,
            points: plainDecimal(activity.points),
            toMark: own.filter((row) => row.needsYou).length,
            groups: own.length,
          };
        }),
    };
  }

  async queue(person: SignedIn, releaseId: ReleaseId): Promise<DeskView> {
    const release = await this.dataSource.getRepository(ReleaseRow).findOneBy({ id: releaseId });
    if (!release) throw problems.notFound();
    await this.viewers.staff(person, release.courseId, 'read-course');
    const { entered } = await this.gate.enterAll(person, release.courseId as CourseId);
    const own = entered.filter((access) => access.release.id === releaseId);
    if (own.length === 0) throw problems.notFound();
    const { activity } = own[0]!;
    return {
      releaseId,
      title: activity.title,
      points: plainDecimal(activity.points),
      due: activity.due?.toISOString() ?? null,
      rows: (await this.rows(own)).sort((a, b) => a.group.number - b.group.number),
    };
  }

  async read(person: SignedIn, copyId: CopyId): Promise<MarkView> {
    return this.view(this.dataSource.manager, await this.enter(person, copyId, 'read-course'));
  }

  /** Saves the whole sheet as it is typed. Nothing of it reaches a student before it is released. */
  async save(person: SignedIn, copyId: CopyId, sheet: SaveMark): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'mark');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.query('SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE', [copyId]);
      const known = await manager.findOneBy(MarkRow, { copyId });
      if ((known?.version ?? 0) !== sheet.version)
        throw problems.staleWrite(await this.view(manager, access), 'Someone else marked this group meanwhile. Both versions are here; choose one.');
      if (sheet.groupMark !== null && new Decimal(sheet.groupMark).gt(access.activity.points)) {
        const most = plainDecimal(access.activity.points);
        throw problems.invalidInput(`${sheet.groupMark} is above the ${most} points of this assignment.`, {
          issues: [{ path: 'groupMark', message: `Write a number from 0 to ${most}.` }],
        });
      }
      const marking = await this.marking(manager, access);
      const credited = new Set<string>(marking.credited);
      if (sheet.adjustments.some((each) => !credited.has(each.enrolmentId))) throw problems.notFound();

      const columns = {
        groupMark: sheet.groupMark,
        feedback: sheet.feedback,
        version: sheet.version + 1,
        attempt: marking.summary.latest?.attempt ?? 0,
        updatedAt: now,
      };
      if (known) await manager.update(MarkRow, { copyId }, columns);
      else await manager.insert(MarkRow, { copyId, ...columns, releasedVersion: null });
      await manager.delete(MarkAdjustmentRow, { copyId });
      if (sheet.adjustments.length > 0) {
        await manager.insert(
          MarkAdjustmentRow,
          sheet.adjustments.map(({ enrolmentId, adjustment }) => ({ copyId, enrolmentId, adjustment: json(adjustment) })),
        );
      }
      await record({
        type: 'mark.drafted',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { from: known?.groupMark ?? null, to: sheet.groupMark, version: sheet.version + 1 },
      });
      return this.view(manager, access);
    });
  }

  /** Gives each credited member their mark. Later edits reach them only when released again. */
  async release(person: SignedIn, copyId: CopyId, { version }: ReleaseMarks): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'mark');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.query('SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE', [copyId]);
      const marking = await this.marking(manager, access);
      const { mark } = marking;
      if (!mark) throw problems.invalidInput('There is no mark to release yet.');
      if (mark.version !== version)
        throw problems.staleWrite(await this.view(manager, access), 'This mark was changed meanwhile. Look at it once more before you release it.');
      await this.refuseIncomplete(manager, marking);

      const { latest } = marking.summary;
      await manager.delete(ReleasedMarkRow, { copyId });
      if (marking.credited.length > 0) {
        await manager.insert(
          ReleasedMarkRow,
          marking.credited.map((enrolmentId) => {
            const result = markOf(marking, enrolmentId);
            return {
              copyId,
              enrolmentId,
              groupMark: mark.groupMark,
              mark: result.mark,
              steps: json(result.steps) as object[],
              feedback: mark.feedback,
              lateMinutes: latest?.late.minutes ?? 0,
              handedInAt: latest?.handedInAt ?? null,
              releasedAt: now,
              releasedBy: person.id,
              seenAt: null,
            };
          }),
        );
      }
      await manager.update(MarkRow, { copyId }, { releasedVersion: mark.version });
      await record({
        type: 'mark.released',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { students: marking.credited.length, groupMark: mark.groupMark },
        groupIds: [access.copy.groupId!],
      });
      return this.view(manager, access);
    });
  }

  async recall(person: SignedIn, copyId: CopyId): Promise<MarkView> {
    const access = await this.enter(person, copyId, 'mark');
    return this.unitOfWork.run(async ({ manager, record }) => {
      const { affected } = await manager.delete(ReleasedMarkRow, { copyId });
      await manager.update(MarkRow, { copyId }, { releasedVersion: null });
      await record({
        type: 'mark.recalled',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { students: affected ?? 0 },
        groupIds: [access.copy.groupId!],
      });
      return this.view(manager, access);
    });
  }

  private async enter(person: SignedIn, copyId: CopyId, act: 'mark' | 'read-course'): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    await this.viewers.staff(person, access.release.courseId, act);
    return access;
  }

  private async refuseIncomplete(manager: EntityManager, marking: Marking): Promise<void> {
    const member = await membersById(manager, marking.credited, '');
    const issues = marking.credited.flatMap((enrolmentId) => {
      const adjustment = marking.adjustments.get(enrolmentId);
      const who = member(enrolmentId).name;
      if (adjustment && adjustment.reason.trim() === '') return [{ path: enrolmentId, message: `Say why ${who}'s mark differs.` }];
      if (marking.mark?.groupMark === null && (!adjustment || adjustment.kind === 'adjusted'))
        return [{ path: 'groupMark', message: 'Give the group a mark, or each member a separate one.' }];
      return [];
    });
    if (issues.length > 0) throw problems.invalidInput(issues[0]!.message, { issues });
  }

  private async marking(manager: EntityManager, access: CopyAccess): Promise<Marking> {
    return (await this.markings.of([access], manager))[0]!;
  }

  private async rows(accesses: readonly CopyAccess[]): Promise<(DeskRow & { releaseId: string })[]> {
    const copyIds = accesses.map((access) => access.copy.id);
    const summaries = await this.work.summaries(accesses);
    const marks = copyIds.length === 0 ? [] : await this.dataSource.getRepository(MarkRow).findBy({ copyId: In(copyIds) });
    const tags = await groupTags(
      this.dataSource.manager,
      accesses.map((access) => access.copy.groupId),
    );
    return accesses.map(({ copy, release }) => {
      const { latest } = summaries.get(copy.id)!;
      const mark = marks.find((each) => each.copyId === copy.id) ?? null;
      const state = stateOf(mark);
      return {
        releaseId: release.id,
        copyId: copy.id as CopyId,
        group: tags.get(copy.groupId!)!,
        handIn: latest
          ? { handedInAt: latest.handedInAt.toISOString(), lateMinutes: latest.late.minutes, deduction: latest.late.deduction, by: latest.by }
          : null,
        mark: { state, groupMark: mark?.groupMark ? plainDecimal(mark.groupMark) : null },
        needsYou: latest !== null && (state === 'unmarked' || latest.attempt > (mark?.attempt ?? 0)),
      };
    });
  }

  private async view(manager: EntityManager, access: CopyAccess): Promise<MarkView> {
    const marking = await this.marking(manager, access);
    const copy = await this.work.read(access, manager);
    const { mark, summary, credited } = marking;
    const member = await membersById(manager, credited, '');
    const stillIn = new Set<string>(await membersOf(manager, access.copy.groupId));
    const latest = copy.handIns[0];
    const released = await manager.findOneBy(ReleasedMarkRow, { copyId: access.copy.id });
    return {
      copy,
      state: stateOf(mark),
      groupMark: mark?.groupMark ? plainDecimal(mark.groupMark) : null,
      feedback: mark?.feedback ?? '',
      lateDeduction: summary.latest?.late.deduction ?? '0',
      lateMinutes: summary.latest?.late.minutes ?? 0,
      version: mark?.version ?? 0,
      isStale: mark !== null && (summary.latest?.attempt ?? 0) > mark.attempt,
      beforeDue: access.activity.due !== null && this.clock.now() < access.activity.due,
      releasedAt: released?.releasedAt.toISOString() ?? null,
      members: credited.map((enrolmentId) => ({
        member: member(enrolmentId),
        isStillInGroup: stillIn.has(enrolmentId),
        words: latest?.parts.find((part) => part.author.enrolmentId === enrolmentId)?.words ?? 0,
        files: latest?.files.filter((file) => file.addedBy.enrolmentId === enrolmentId).length ?? 0,
        adjustment: marking.adjustments.get(enrolmentId) ?? null,
        ...mutable(markOf(marking, enrolmentId)),
      })),
      history: await this.history(manager, access.copy.id),
    };
  }

  private async history(manager: EntityManager, copyId: string): Promise<MarkView['history']> {
    const rows = await manager.query<(Pick<EventRow, 'type' | 'at' | 'facts'> & { by: string })[]>(
      `SELECT ev."type", ev."at", ev."facts", p."name" AS "by" FROM "event" ev JOIN "person" p ON p."id" = ev."actorId"
        WHERE ev."subjectId" = $1 AND ev."type" LIKE 'mark.%' ORDER BY ev."at" DESC, ev."id" DESC LIMIT 50`,
      [copyId],
    );
    return rows
      .filter((row) => row.type !== 'mark.drafted' || row.facts['from'] !== row.facts['to'])
      .map((row) => ({ at: row.at.toISOString(), by: row.by, what: sayEvent(row.type, row.facts) }));
  }
}

const mutable = ({ mark, steps }: PersonMark) => ({ mark, steps: [...steps] });

function stateOf(mark: MarkRow | null): MarkView['state'] {
  if (!mark) return 'unmarked';
  if (mark.releasedVersion === mark.version) return 'released';
  return mark.groupMark === null && mark.releasedVersion === null ? 'unmarked' : 'drafted';
}

function sayEvent(type: string, facts: Record<string, unknown>): string {
  const said = (value: unknown) => (typeof value === 'string' ? plainDecimal(value) : 'none');
  if (type === 'mark.released') return `Released to ${String(facts['students'])} students`;
  if (type === 'mark.recalled') return `Recalled from ${String(facts['students'])} students`;
  return `Group mark ${said(facts['from'])} → ${said(facts['to'])}`;
}
