import type { AdjustmentShape, MarkView, SaveMark } from '@jigsaw/contract/marks';
import type { MarkSheet } from '@jigsaw/core/marks';
import { readPoints } from '@jigsaw/core/marks';

/** What a marker writes: the mark or its rubric, what is said to all, and what differs for whom. */
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

/** As the server will work it out, so that the sum on the screen is the sum that is released. */
export const sheetOf = (mark: MarkView, written: Written): MarkSheet => ({
  unit: mark.unit,
  points: mark.points,
  rubric: mark.copy.rubric,
  typed: written.typedMark,
  overrideReason: written.overrideReason,
  picks: written.picks,
  lateDeduction: mark.lateDeduction,
  credited: mark.members.map(({ member }) => member.enrolmentId),
  adjustments: written.adjustments,
});

/** What stands in a field of points: as it is typed, as long as that is what is kept; else what is kept by now. */
export function shownIn(typed: string, kept: string | null, most: string, least = '0') {
  const read = readPoints(typed, most, least);
  if (read.ok) return { text: read.points === kept ? typed : (kept ?? ''), fault: undefined };
  return { text: typed, fault: read.says };
}
