import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { SavedMark, SaveMark, SeenMark } from '@jigsaw/contract/marks';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import type { Adjustment, Missing } from '@jigsaw/core/marks';
import {
  draftedBetween,
  excessIn,
  markState,
  missingIn,
  needsMarking,
  sayMissing,
  unitMark,
} from '@jigsaw/core/marks';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess, Unit } from '../release/index.js';
import { Gate, hearersOfMark, lockCopy } from '../release/index.js';
import { DeskService } from './desk.service.js';
import type { Marking } from './markings.js';
import { Markings } from './markings.js';
import { giveMarks, refuseWithdrawn } from './giveMarks.js';
import { deleteReleased, writeAdjustments, writeMark } from './markStore.js';

/** Marks a unit: saved as it is typed, released, recalled. Acts on one copy take turns. */
@Injectable()
export class MarkingService {
  constructor(
    private readonly unitOfWork: UnitOfWork,
    private readonly gate: Gate,
    private readonly markings: Markings,
    private readonly desk: DeskService,
  ) {}

  /** Saves the whole sheet as it is typed. Nothing of it reaches a student before it is released. */
  async save(person: SignedIn, copyId: CopyId, unit: Unit, typed: SaveMark): Promise<SavedMark> {
    return this.inTurn(person, copyId, unit, async ({ manager, now, record }, marking) => {
      const { access, work, mark, sheet } = marking;
      if ((mark?.version ?? 0) !== typed.version)
        throw problems.staleWrite(
          await this.desk.view(manager, marking),
          'Someone else marked this meanwhile. Both versions are here; choose one.',
        );
      await refuseImpossible(manager, marking, typed);
      const version = typed.version + 1;
      const workAt = work.latest?.at ?? null;
      await writeMark(manager, { id: mark?.id ?? newId(), copyId, unit, typed, version, workAt, now });
      if (sheet.adjustments.size + typed.adjustments.length > 0)
        await writeAdjustments(manager, copyId, work.credited, typed.adjustments);

      const after: Marking = {
        ...marking,
        sheet: {
          ...sheet,
          typed: typed.typedMark,
          overrideReason: typed.overrideReason,
          picks: typed.picks,
          feedback: typed.feedback,
          adjustments: adjustmentsIn(typed),
          version,
          workAt: workAt?.getTime() ?? null,
        },
      };
      await record({
        type: 'mark.drafted',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { unit, version, ...draftedBetween(sheet, after.sheet) },
        ...hearersOfMark(access, []),
      });
      return this.saved(manager, after);
    });
  }

  /** Gives each credited member their mark. Later edits reach them only when released again. */
  async release(person: SignedIn, copyId: CopyId, unit: Unit, { version }: SeenMark): Promise<SavedMark> {
    return this.inTurn(person, copyId, unit, async (step, marking) => {
      const { manager } = step;
      const { access, mark, sheet } = marking;
      if (!mark) throw problems.invalidInput('There is no mark to release yet.');
      refuseWithdrawn(access);
      await this.refuseUnseen(manager, marking, version, 'release it');
      await refuseIncomplete(manager, marking);
      const given = await giveMarks(step, person, marking);
      return this.saved(manager, { ...marking, sheet: { ...sheet, given } });
    });
  }

  async recall(person: SignedIn, copyId: CopyId, unit: Unit, { version }: SeenMark): Promise<SavedMark> {
    return this.inTurn(person, copyId, unit, async ({ manager, record }, marking) => {
      const { access, sheet } = marking;
      await this.refuseUnseen(manager, marking, version, 'recall it');
      const students = await deleteReleased(manager, copyId, unit);
      await record({
        type: 'mark.recalled',
        courseId: access.release.courseId,
        actorId: person.id,
        subjectId: copyId,
        facts: { unit, students },
        ...hearersOfMark(access, [...sheet.given.keys()] as EnrolmentId[]),
      });
      return this.saved(manager, { ...marking, sheet: { ...sheet, given: new Map() } });
    });
  }

  private async saved(manager: EntityManager, { sheet }: Marking): Promise<SavedMark> {
    return {
      version: sheet.version ?? 0,
      state: markState(sheet),
      groupMark: unitMark(sheet),
      changes: await this.desk.changes(manager, sheet),
      needsYou: needsMarking(sheet),
    };
  }

  /** What is pressed is about what is before the marker, and nothing else. */
  private async refuseUnseen(
    manager: EntityManager,
    marking: Marking,
    version: number,
    act: string,
  ): Promise<void> {
    if ((marking.mark?.version ?? 0) === version) return;
    throw problems.staleWrite(
      await this.desk.view(manager, marking),
      `This mark was changed meanwhile. Look at it again before you ${act}.`,
    );
  }

  private async inTurn(
    person: SignedIn,
    copyId: CopyId,
    unit: Unit,
    act: (work: Work, marking: Marking) => Promise<SavedMark>,
  ): Promise<SavedMark> {
    const access: CopyAccess = await this.gate.enterAsStaff(person, copyId, 'mark');
    return this.unitOfWork.run(async (work) => {
      await lockCopy(work.manager, copyId);
      return act(work, await this.markings.one(access, unit, work.manager));
    });
  }
}

const adjustmentsIn = ({ adjustments }: SaveMark): ReadonlyMap<string, Adjustment> =>
  new Map(adjustments.map(({ enrolmentId, adjustment }) => [enrolmentId, adjustment]));

async function refuseIncomplete(manager: EntityManager, { sheet, work }: Marking): Promise<void> {
  const missing = missingIn(sheet);
  if (missing.length === 0) return;
  const member = await authorsById(manager, work.credited, '');
  const issues = missing.map((each) => ({
    path: pathOf(each),
    message: sayMissing(each, sheet, (id) => member(id).name),
  }));
  throw problems.invalidInput(issues[0]?.message, { issues });
}

/** What no marker can mean: more points than there are, and people who are not credited. */
async function refuseImpossible(
  manager: EntityManager,
  { sheet, access, work }: Marking,
  typed: SaveMark,
): Promise<void> {
  const credited = new Set<string>(work.credited);
  if (typed.adjustments.some((each) => !credited.has(each.enrolmentId))) throw problems.notFound();
  const excess = excessIn({
    ...sheet,
    typed: typed.typedMark,
    picks: typed.picks,
    adjustments: adjustmentsIn(typed),
  });
  if (excess?.code === 'member-above') {
    const { name } = (await authorsById(manager, work.credited, ''))(excess.enrolmentId);
    throw problems.invalidInput(
      `${excess.mark} for ${name} is above the ${sheet.points} points of this ${access.activity.kind}.`,
      { issues: [{ path: excess.enrolmentId, message: `At most ${sheet.points} points.` }] },
    );
  }
  if (excess?.code === 'above-points')
    throw problems.invalidInput(
      `${excess.mark} is above the ${sheet.points} points of this ${access.activity.kind}.`,
      { issues: [{ path: 'typedMark', message: `Write a number from 0 to ${sheet.points}.` }] },
    );
  if (excess)
    throw problems.invalidInput(`${excess.points} is above the ${excess.most} points of ${excess.name}.`, {
      issues: [{ path: `picks.${excess.criterionId}`, message: `Write a number from 0 to ${excess.most}.` }],
    });
}

/** The field of the sheet that wants something. */
function pathOf(missing: Missing): string {
  if ('enrolmentId' in missing) return missing.enrolmentId;
  return missing.code === 'mark' ? 'typedMark' : 'overrideReason';
}
