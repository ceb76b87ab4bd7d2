import type { EnrolmentId } from '@jigsaw/core/ids';
import type { GivenMark } from '@jigsaw/core/marks';
import { changesSince, markToGive, unitMark } from '@jigsaw/core/marks';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { hearersOfMark } from '../release/index.js';
import type { Marking } from './markings.js';
import { releaseTo } from './markStore.js';

/** What is taken back from students gets no marks: no one would see them. */
export function refuseWithdrawn({ release, activity }: CopyAccess): void {
  if (release.state === 'withdrawn')
    throw problems.conflict(
      `${activity.title} is withdrawn, so students cannot see its marks. Release the activity again first.`,
    );
}

/** Gives each credited member of one unit their mark; anyone who was given the same before keeps it as it was given: it is not new to them.
 * @returns what they have by then. Where nothing differs, nothing is done. */
export async function giveMarks(
  { manager, now, record }: Work,
  person: SignedIn,
  { access, unit, work, sheet }: Marking,
): Promise<ReadonlyMap<string, GivenMark>> {
  const given = new Map(work.credited.map((id) => [id, markToGive(sheet, id)]));
  const differs = new Set(changesSince(sheet).map((change) => change.enrolmentId));
  const isFirst = sheet.given.size === 0;
  if (!isFirst && differs.size === 0) return given;
  const giving = [...given].filter(([id]) => isFirst || differs.has(id));
  await releaseTo(
    manager,
    access.copy.id,
    unit,
    giving.map(([enrolmentId, one]) => ({
      ...one,
      enrolmentId,
      handedInAt: work.latest?.at ?? null,
      releasedAt: now,
      releasedBy: person.id,
    })),
    work.credited,
  );
  await record({
    type: 'mark.released',
    courseId: access.release.courseId,
    actorId: person.id,
    subjectId: access.copy.id,
    facts: { unit, students: isFirst ? giving.length : differs.size, groupMark: unitMark(sheet) },
    ...hearersOfMark(access, [
      ...giving.map(([id]) => id),
      ...([...sheet.given.keys()] as EnrolmentId[]).filter((id) => !given.has(id)),
    ]),
  });
  return given;
}
