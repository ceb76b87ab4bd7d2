import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { MarkedMany, ReadyMarks, ReadyUnit, SeenUnits } from '@jigsaw/contract/marks';
import type { EnrolmentId, ReleaseId } from '@jigsaw/core/ids';
import { changesSince, markState, missingIn, needsMarking, sayMissing, unitMark } from '@jigsaw/core/marks';
import { authorsById, toldApart, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { Gate, hearersOfMark, lockCopies, releaseOf } from '../release/index.js';
import { groupTags } from '../sets/index.js';
import { giveMarks, refuseWithdrawn } from './giveMarks.js';
import type { Marking } from './markings.js';
import { Markings } from './markings.js';
import { deleteReleased, writeMark } from './markStore.js';

const keyOf = ({ copyId, unit }: { readonly copyId: string; readonly unit: string }) => `${copyId} ${unit}`;

/** Releases, takes back and takes over suggested marks of many units at once: each as it was seen, all of them or none. */
@Injectable()
export class ManyMarksService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly markings: Markings,
  ) {}

  /** What there is to release and to take over, with what keeps a unit from it: the check before the press. */
  async ready(person: SignedIn, releaseId: ReleaseId): Promise<ReadyMarks> {
    const { manager } = this.dataSource;
    const markings = await this.markings.of(await this.accesses(person, releaseId), manager);
    const whoIs = await this.names(manager, markings);
    const toRelease = markings.filter(({ sheet }) => ['drafted', 'changed'].includes(markState(sheet)));
    const toTake = markings.filter(
      ({ sheet, work }) =>
        sheet.rubric === null &&
        markState(sheet) === 'unmarked' &&
        needsMarking(sheet) &&
        work.suggestion !== null,
    );
    return {
      toRelease: toRelease.map((marking) => readyUnit(marking, whoIs)),
      toTake: toTake.map((marking) => ({
        ...readyUnit(marking, whoIs),
        mark: marking.work.suggestion?.mark ?? null,
        lacks: null,
      })),
    };
  }

  release(person: SignedIn, releaseId: ReleaseId, seen: SeenUnits): Promise<MarkedMany> {
    return this.inTurn(person, releaseId, seen, async (step, markings) => {
      const [first] = markings;
      if (first) refuseWithdrawn(first.access);
      await this.refuseIncomplete(step.manager, markings);
      let students = 0;
      for (const marking of markings) {
        students +=
          marking.sheet.given.size === 0 ? marking.work.credited.length : changesSince(marking.sheet).length;
        await giveMarks(step, person, marking);
      }
      return students;
    });
  }

  recall(person: SignedIn, releaseId: ReleaseId, seen: SeenUnits): Promise<MarkedMany> {
    return this.inTurn(person, releaseId, seen, async ({ manager, record }, markings) => {
      let all = 0;
      for (const { access, unit, sheet } of markings) {
        const students = await deleteReleased(manager, access.copy.id, unit);
        all += students;
        await record({
          type: 'mark.recalled',
          courseId: access.release.courseId,
          actorId: person.id,
          subjectId: access.copy.id,
          facts: { unit, students },
          ...hearersOfMark(access, [...sheet.given.keys()] as EnrolmentId[]),
        });
      }
      return all;
    });
  }

  /** What the kind proposes becomes the draft of each, as if the marker had typed it. */
  takeSuggested(person: SignedIn, releaseId: ReleaseId, seen: SeenUnits): Promise<MarkedMany> {
    return this.inTurn(person, releaseId, seen, async ({ manager, now, record }, markings) => {
      let students = 0;
      for (const { access, unit, work, mark, sheet } of markings) {
        if (!work.suggestion) continue;
        const version = (mark?.version ?? 0) + 1;
        await writeMark(manager, {
          id: mark?.id ?? newId(),
          copyId: access.copy.id,
          unit,
          typed: {
            typedMark: work.suggestion.mark,
            overrideReason: sheet.overrideReason,
            picks: sheet.picks,
            feedback: sheet.feedback,
            adjustments: [],
            version,
          },
          version,
          workAt: work.latest?.at ?? null,
          now,
        });
        await record({
          type: 'mark.drafted',
          courseId: access.release.courseId,
          actorId: person.id,
          subjectId: access.copy.id,
          facts: { unit, from: unitMark(sheet), to: work.suggestion.mark, version },
          ...hearersOfMark(access, []),
        });
        students += work.credited.length;
      }
      return students;
    });
  }

  private async accesses(
    person: SignedIn,
    releaseId: ReleaseId,
    act: 'read-course' | 'mark' = 'read-course',
  ) {
    const release = await releaseOf(this.dataSource.manager, releaseId);
    await this.viewers.staff(person, release.courseId, act);
    const { entered } = await this.gate.enterAll(person, release.courseId, { releases: [releaseId] });
    if (entered.length === 0) throw problems.notFound();
    return entered;
  }

  /** @param act does it. @returns how many students it reached */
  private async inTurn(
    person: SignedIn,
    releaseId: ReleaseId,
    { units }: SeenUnits,
    act: (step: Work, markings: readonly Marking[]) => Promise<number>,
  ): Promise<MarkedMany> {
    const wanted = new Map(units.map((each) => [keyOf(each), each]));
    const copyIds = new Set<string>(units.map((each) => each.copyId));
    const accesses = (await this.accesses(person, releaseId, 'mark')).filter((access) =>
      copyIds.has(access.copy.id),
    );
    return this.unitOfWork.run(async (step) => {
      await lockCopies(
        step.manager,
        accesses.map((access) => access.copy.id),
      );
      const markings = (await this.markings.of(accesses, step.manager)).filter(({ access, unit }) =>
        wanted.has(keyOf({ copyId: access.copy.id, unit })),
      );
      if (markings.length < wanted.size) throw problems.notFound();
      await this.refuseUnseen(step.manager, markings, wanted);
      return { units: markings.length, students: await act(step, markings) };
    });
  }

  private async refuseUnseen(
    manager: EntityManager,
    markings: readonly Marking[],
    seen: ReadonlyMap<string, SeenUnits['units'][number]>,
  ): Promise<void> {
    const changed = markings.filter(
      ({ access, unit, mark }) =>
        (mark?.version ?? 0) !== seen.get(keyOf({ copyId: access.copy.id, unit }))?.version,
    );
    if (changed.length === 0) return;
    const whoIs = await this.names(manager, changed);
    throw problems.staleWrite(
      null,
      `Someone changed the mark of ${changed.map((each) => whoIs(each).name).join(', ')} while you had this open. Nothing was done. Review the list and try again.`,
    );
  }

  private async refuseIncomplete(manager: EntityManager, markings: readonly Marking[]): Promise<void> {
    const lacking = markings.filter(({ sheet }) => missingIn(sheet).length > 0);
    if (lacking.length === 0) return;
    const whoIs = await this.names(manager, lacking);
    throw problems.invalidInput(
      `${lacking.map((each) => whoIs(each).name).join(', ')} cannot be released yet. No marks were released.`,
    );
  }

  private async names(manager: EntityManager, markings: readonly Marking[]): Promise<(of: Marking) => Named> {
    const courseId = markings[0]?.access.release.courseId;
    const tags = await groupTags(
      manager,
      markings.map(({ access }) => access.copy.groupId),
    );
    const member = await authorsById(
      manager,
      markings.flatMap(({ work }) => work.credited),
      '',
    );
    const apart = courseId ? await toldApart(manager, courseId) : (_id: string, name: string) => name;
    return ({ access, unit }) => {
      const { groupId } = access.copy;
      const who =
        unit === 'group'
          ? { name: (groupId && tags.get(groupId)?.name) ?? 'All', reading: null }
          : { name: apart(unit, member(unit).name), reading: member(unit).reading };
      return { ...who, nameOf: (id) => member(id).name };
    };
  }
}

interface Named {
  readonly name: string;
  readonly reading: string | null;
  readonly nameOf: (enrolmentId: string) => string;
}

function readyUnit(marking: Marking, whoIs: (of: Marking) => Named): ReadyUnit {
  const { access, unit, sheet, mark, work } = marking;
  const { name, reading, nameOf } = whoIs(marking);
  const [missing] = missingIn(sheet);
  return {
    copyId: access.copy.id,
    unit,
    version: mark?.version ?? 0,
    who: { name, reading },
    mark: unitMark(sheet),
    students: sheet.given.size === 0 ? work.credited.length : changesSince(sheet).length,
    isChange: sheet.given.size > 0,
    lacks: missing ? sayMissing(missing, sheet, nameOf) : null,
  };
}
