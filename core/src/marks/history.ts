import isEqual from 'fast-deep-equal';
import type { Adjustment } from './personMark.js';
import type { KeptSheet } from './sheet.js';
import { unitMark } from './sheet.js';

/** What one save changed in a sheet, as its history keeps it. */
export interface Drafted {
  readonly from: string | null;
  readonly to: string | null;
  /** null: as the group. */
  readonly adjustments: readonly {
    readonly enrolmentId: string;
    readonly from: Adjustment | null;
    readonly to: Adjustment | null;
  }[];
  /** Why the mark stands in place of the rubric's, where that was written or changed. */
  readonly reason: string | null;
  readonly isFeedbackChanged: boolean;
}

export function draftedBetween(before: KeptSheet, after: KeptSheet): Drafted {
  const ids = new Set([...before.adjustments.keys(), ...after.adjustments.keys()]);
  return {
    from: unitMark(before),
    to: unitMark(after),
    adjustments: [...ids].flatMap((enrolmentId) => {
      const [from, to] = [
        before.adjustments.get(enrolmentId) ?? null,
        after.adjustments.get(enrolmentId) ?? null,
      ];
      return isEqual(from, to) ? [] : [{ enrolmentId, from, to }];
    }),
    reason: before.overrideReason === after.overrideReason ? null : after.overrideReason,
    isFeedbackChanged: before.feedback !== after.feedback,
  };
}

/** Saves of one marker that follow each other as they type are one change. */
export function draftedTogether(earlier: Drafted, later: Drafted): Drafted {
  const changes = new Map(earlier.adjustments.map((each) => [each.enrolmentId, each]));
  for (const each of later.adjustments)
    changes.set(each.enrolmentId, { ...each, from: (changes.get(each.enrolmentId) ?? each).from });
  return {
    from: earlier.from,
    to: later.to,
    adjustments: [...changes.values()].filter(({ from, to }) => !isEqual(from, to)),
    reason: later.reason ?? earlier.reason,
    isFeedbackChanged: earlier.isFeedbackChanged || later.isFeedbackChanged,
  };
}

/** @returns null: nothing of it is left to tell */
export function sayDrafted(
  { from, to, adjustments, reason, isFeedbackChanged }: Drafted,
  unit: string,
  nameOf: (enrolmentId: string) => string,
): string | null {
  const told = [
    from === to ? null : `${unit === 'group' ? 'Group mark' : 'Mark'} ${from ?? 'none'} → ${to ?? 'none'}`,
    reason === null ? null : reason === '' ? 'no reason any more' : `reason: ${reason}`,
    ...adjustments.map(
      (each) => `${nameOf(each.enrolmentId)}: ${sayAdjustment(each.from)} → ${sayAdjustment(each.to)}`,
    ),
    isFeedbackChanged ? 'feedback' : null,
  ].filter((part) => part !== null);
  return told.length === 0 ? null : told.join('; ');
}

function sayAdjustment(adjustment: Adjustment | null): string {
  if (adjustment === null) return 'same as the group';
  const why = adjustment.reason.trim() === '' ? '' : ` (${adjustment.reason})`;
  switch (adjustment.kind) {
    case 'adjusted': {
      const { by } = adjustment;
      const points = by === null ? 'some points' : by.startsWith('-') ? `−${by.slice(1)}` : `+${by}`;
      return `${points}${why}`;
    }
    case 'separate':
      return `${adjustment.mark ?? 'a mark'} of their own${why}`;
    case 'excused':
      return `excused${why}`;
  }
}
