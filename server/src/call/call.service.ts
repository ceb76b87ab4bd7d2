import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, IsNull, MoreThan } from 'typeorm';
import type { CallView, SetDoor, StepIn, StillIn } from '@jigsaw/contract/call';
import type { CallAct } from '@jigsaw/core/call';
import { absentAfterMs, callFacts, callRules, endOf } from '@jigsaw/core/call';
import type { CopyId, VisitId } from '@jigsaw/core/ids';
import { mayAct } from '@jigsaw/core/release';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, hearersOf, lockCopy, membersOfCopies } from '../release/index.js';
import { CallDoorRow, CallVisitRow } from './call.rows.js';

/** Days of which those who share a call see who came. */
const daysTold = 8;

/** The place where a group meets: who is in, who came, and where its door leads. */
@Injectable()
export class CallService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly gate: Gate,
    private readonly clock: Clock,
  ) {}

  async read(person: SignedIn, copyId: CopyId): Promise<CallView> {
    return this.view(this.dataSource.manager, await this.enter(person, copyId));
  }

  async stepIn(person: SignedIn, copyId: CopyId, { id }: StepIn): Promise<StillIn> {
    const access = await this.enterTo('step-in', person, copyId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const { enrolmentId } = access.viewer;
      const { raw } = (await manager
        .createQueryBuilder()
        .insert()
        .into(CallVisitRow)
        .values({ id, copyId, enrolmentId, cameAt: now, seenAt: now, leftAt: null })
        .orIgnore()
        .returning('id')
        .execute()) as { raw: unknown[] };
      if (!(await manager.existsBy(CallVisitRow, { id, copyId, enrolmentId })))
        throw problems.invalidInput('That did not work. Step in again.'); // an id that is taken elsewhere says nothing of where
      if (raw.length > 0)
        await record({ type: 'call.changed', facts: { isIn: true }, ...about(person, access) });
      return { isIn: true };
    });
  }

  /** Their page is still open. One that was away for long has left, and comes in anew. */
  async stay(person: SignedIn, copyId: CopyId, id: VisitId): Promise<StillIn> {
    const access = await this.enterTo('step-in', person, copyId);
    const now = this.clock.now();
    const { affected } = await this.dataSource.manager.update(
      CallVisitRow,
      {
        id,
        copyId,
        enrolmentId: access.viewer.enrolmentId,
        leftAt: IsNull(),
        seenAt: MoreThan(new Date(now.getTime() - absentAfterMs)),
      },
      { seenAt: now },
    );
    return { isIn: affected === 1 };
  }

  /** Anyone may leave, whatever else they may no longer do here. */
  async leave(person: SignedIn, copyId: CopyId, id: VisitId): Promise<StillIn> {
    const access = await this.enter(person, copyId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const visit = await manager.findOne(CallVisitRow, {
        where: { id, copyId, enrolmentId: access.viewer.enrolmentId, leftAt: IsNull() },
        lock: { mode: 'pessimistic_write' },
      });
      if (!visit) return { isIn: false };
      // Someone who was not heard of for long had left when they were last heard of.
      const end = endOf(told(visit), now.getTime());
      const leftAt = end === null ? now : new Date(end);
      await manager.update(CallVisitRow, { id }, { leftAt, seenAt: leftAt });
      await record({ type: 'call.changed', facts: { isIn: false }, ...about(person, access) });
      return { isIn: false };
    });
  }

  async setDoor(person: SignedIn, copyId: CopyId, { address, version }: SetDoor): Promise<CallView> {
    const access = await this.enterTo('set-door', person, copyId);
    return this.unitOfWork.run(async ({ manager, record }) => {
      await lockCopy(manager, copyId);
      const known = await manager.findOneBy(CallDoorRow, { copyId });
      if ((known?.version ?? 0) !== version)
        throw problems.staleWrite(
          await this.view(manager, access),
          'Someone else changed where the door leads. Look at their address first, then change it.',
        );
      await manager.save(CallDoorRow, {
        copyId,
        address,
        version: version + 1,
        changedBy: access.viewer.enrolmentId,
      });
      await record({ type: 'call.changed', facts: { door: true }, ...about(person, access) });
      return this.view(manager, access);
    });
  }

  private async view(manager: EntityManager, access: CopyAccess): Promise<CallView> {
    const { copy, viewer, decision } = access;
    const now = this.clock.now();
    const since = new Date(now.getTime() - daysTold * 86_400_000);
    const visits = await manager.find(CallVisitRow, {
      where: { copyId: copy.id, cameAt: MoreThan(since) },
      order: { cameAt: 'ASC', id: 'ASC' },
    });
    const members = (await membersOfCopies(manager, [access]))(copy.id);
    const isMember = new Set(members);
    const ids = [...new Set([...members, ...visits.map((visit) => visit.enrolmentId)])];
    const person = await authorsById(manager, ids, viewer.enrolmentId);
    const open = visits.filter(
      (visit) =>
        endOf(told(visit), now.getTime()) === null &&
        // Someone who was moved is in no longer, whatever their page believes.
        (isMember.has(visit.enrolmentId) || person(visit.enrolmentId).isStaff),
    );
    const first = new Map(open.toReversed().map((visit) => [visit.enrolmentId, visit]));
    const door = await manager.findOneBy(CallDoorRow, { copyId: copy.id });
    return {
      members: members.map(person).map(({ isStaff: _isStaff, ...member }) => member),
      inNow: [...first.values()]
        .map((visit) => ({ member: person(visit.enrolmentId), since: visit.cameAt.toISOString() }))
        .sort((a, b) => a.since.localeCompare(b.since)),
      visits:
        // Of the days before its members alone know, not those who sit in as one of them.
        decision.part === 'member' && !access.person.sitsIn
          ? visits.map((visit) => ({
              enrolmentId: visit.enrolmentId,
              name: person(visit.enrolmentId).name,
              from: visit.cameAt.toISOString(),
              seen: visit.seenAt.toISOString(),
              left: visit.leftAt?.toISOString() ?? null,
            }))
          : [],
      door: { address: door?.address ?? '', version: door?.version ?? 0 },
      mayStepIn: mayAct(callRules, 'step-in', decision),
      maySetDoor: mayAct(callRules, 'set-door', decision),
      serverTime: now.toISOString(),
    };
  }

  private async enter(person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    if (access.activity.kind !== callFacts.name) throw problems.notFound();
    return access;
  }

  private async enterTo(act: CallAct, person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.enter(person, copyId);
    if (mayAct(callRules, act, access.decision)) return access;
    throw access.decision.part === 'member'
      ? problems.closed()
      : problems.notYours('You may look in here, not step in.');
  }
}

const told = ({ seenAt, leftAt }: CallVisitRow) => ({
  seen: seenAt.getTime(),
  left: leftAt?.getTime() ?? null,
});

const about = (person: SignedIn, access: CopyAccess) => ({
  courseId: access.release.courseId,
  actorId: person.id,
  subjectId: access.copy.id,
  ...hearersOf(access),
});
