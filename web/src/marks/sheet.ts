import { SaveMark } from '@jigsaw/contract/marks';
import type { AdjustmentShape, MarkView } from '@jigsaw/contract/marks';
import type { MarkSheet } from '@jigsaw/core/marks';
import { readPoints } from '@jigsaw/core/marks';

/** What a marker writes: the mark or its rubric, what is said to all, and what differs for each person. */
export type Written = Pick<SaveMark, 'typedMark' | 'overrideReason' | 'picks' | 'feedback'> & {
  readonly adjustments: ReadonlyMap<string, AdjustmentShape>;
};

export const writtenIn = (mark: MarkView): Written => ({
  typedMark: mark.typedMark,
  overrideReason: mark.overrideReason,
  picks: mark.picks,
  feedback: mark.feedback,
  adjustments: new Map(
    mark.members.flatMap(({ member, adjustment }) =>
      adjustment ? [[member.enrolmentId, adjustment] as const] : [],
    ),
  ),
});

export function bodyOf(written: Written, version: number): SaveMark {
  const adjustments = [...written.adjustments].map(([enrolmentId, adjustment]) => ({
    enrolmentId: enrolmentId as SaveMark['adjustments'][number]['enrolmentId'],
    adjustment,
  }));
  const { typedMark, overrideReason, picks, feedback } = written;
  return { typedMark, overrideReason, picks, feedback, adjustments, version };
}

/** What was written, as it is kept in the tab until it is saved. */
export function writtenFrom(packed: unknown): Written | null {
  const body = SaveMark.safeParse(packed).data;
  if (!body) return null;
  const { typedMark, overrideReason, picks, feedback, adjustments } = body;
  return {
    typedMark,
    overrideReason,
    picks,
    feedback,
    adjustments: new Map(adjustments.map(({ enrolmentId, adjustment }) => [enrolmentId, adjustment])),
  };
}

/** What two markers changed both, and how, in words. */
export function sayDisputed(
  path: string,
  mine: Written,
  theirs: Written,
  mark: Pick<MarkView, 'members' | 'copy'>,
): string {
  const [part, id] = path.split('.');
  switch (part) {
    case 'picks': {
      const criterion = mark.copy.rubric?.criteria.find((each) => each.id === id)?.name ?? 'A criterion';
      const points = (written: Written) => written.picks[id ?? '']?.points ?? 'nothing';
      return `${criterion}: they gave ${points(theirs)}, you ${points(mine)}`;
    }
    case 'adjustments': {
      const name = mark.members.find(({ member }) => member.enrolmentId === id)?.member.name;
      return `What differs for ${name ?? 'a member'}: they ${sayAdjustment(theirs.adjustments.get(id ?? ''))}, you ${sayAdjustment(mine.adjustments.get(id ?? ''))}`;
    }
    case 'feedback':
      return `Feedback: theirs is “${short(theirs.feedback)}”`;
    case 'overrideReason':
      return `Reason: theirs is “${short(theirs.overrideReason)}”`;
    default:
      return `they gave ${theirs.typedMark ?? 'no mark'}, you ${mine.typedMark ?? 'none'}`;
  }
}

function sayAdjustment(adjustment: AdjustmentShape | undefined): string {
  switch (adjustment?.kind) {
    case 'adjusted':
      return `${adjustment.by ?? 'no'} points`;
    case 'separate':
      return `${adjustment.mark ?? 'no mark'} of their own`;
    case 'excused':
      return 'excused';
    case undefined:
      return 'same as the group';
  }
}

const short = (text: string) => (text.length > 80 ? `${text.slice(0, 79)}…` : text);

/** As the server will work it out, so that the sum on the screen is the sum that is released. */
export const sheetOf = (mark: MarkView, written: Written): MarkSheet => ({
  unit: mark.unit,
  points: mark.points,
  rubric: mark.copy.rubric,
  typed: written.typedMark,
  overrideReason: written.overrideReason,
  picks: written.picks,
  lateDeduction: mark.lateDeduction,
  ownLate: new Map(mark.ownLate.map(({ enrolmentId, ...late }) => [enrolmentId, late])),
  credited: mark.members.map(({ member }) => member.enrolmentId),
  adjustments: written.adjustments,
});

/** What stands in a field of points: as it is typed, as long as that is what is kept; else what is kept by now. */
export function shownIn(typed: string, kept: string | null, most: string, least = '0') {
  const read = readPoints(typed, most, least);
  if (read.ok) return { text: read.points === kept ? typed : (kept ?? ''), fault: undefined };
  return { text: typed, fault: read.says };
}
