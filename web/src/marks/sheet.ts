import type { AdjustmentShape, MarkView, SaveMark } from '@jigsaw/contract/marks';
import type { MarkSheet } from '@jigsaw/core/marks';

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

const isNumber = (text: string) => /^-?\d{1,5}(\.\d{1,2})?$/.test(text);

/** Why a mark cannot be meant as it is typed. */
export function faultOfMark(text: string, max: string): string | undefined {
  if (text === '') return undefined;
  if (!isNumber(text)) return 'Write a number, like 31.5.';
  return Number(text) > Number(max) || Number(text) < 0 ? `From 0 to ${max}.` : undefined;
}
