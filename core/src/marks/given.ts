import isEqual from 'fast-deep-equal';
import type { LatePolicy } from '../handin/index.js';
import type { MarkStep } from './personMark.js';
import type { Picks, Rubric } from './rubric.js';

/** What one student was given, as everything was when it was given. A value of its own: only another release or taking it back changes it, whatever
 * becomes of the activity, its rubric, its dates or the sheet. Marks and points are decimal strings. */
export interface GivenMark {
  readonly points: string;
  readonly groupMark: string | null;
  /** null: excused. */
  readonly mark: string | null;
  readonly steps: readonly MarkStep[];
  readonly rubric: { readonly rubric: Rubric; readonly picks: Picks } | null;
  readonly feedback: string;
  readonly lateMinutes: number;
  /** What being late costs. It is kept to be read, and alone makes no difference: what it cost is among the steps. */
  readonly latePolicy: LatePolicy | null;
}

/** What of a mark would be otherwise. `way`: how it came about, though it comes to the same. */
export type Difference = 'mark' | 'late' | 'rubric' | 'feedback' | 'way';

/** What one student was given, and what they would be given now. null: no mark. */
export interface MarkChange {
  readonly enrolmentId: string;
  readonly from: GivenMark | null;
  readonly to: GivenMark | null;
  readonly differs: readonly Difference[];
}

/** What differs between what students were given and what they would be given now; nothing: all of it stands as it was given. */
export function changesBetween(
  given: ReadonlyMap<string, GivenMark>,
  now: ReadonlyMap<string, GivenMark>,
): MarkChange[] {
  const ids = [...new Set([...given.keys(), ...now.keys()])];
  return ids.flatMap((enrolmentId) => {
    const [from, to] = [given.get(enrolmentId) ?? null, now.get(enrolmentId) ?? null];
    const differs = differencesOf(from, to);
    return differs.length === 0 ? [] : [{ enrolmentId, from, to, differs }];
  });
}

/** Whether someone would be given something else. */
export const isOtherwise = (from: GivenMark | null, to: GivenMark | null): boolean =>
  differencesOf(from, to).length > 0;

function differencesOf(from: GivenMark | null, to: GivenMark | null): Difference[] {
  if (from === null || to === null) return from === to ? [] : ['mark'];
  const differs: Difference[] = [];
  if (from.mark !== to.mark || from.points !== to.points) differs.push('mark');
  if (from.lateMinutes !== to.lateMinutes) differs.push('late');
  if (!isEqual(from.rubric, to.rubric)) differs.push('rubric');
  if (from.feedback !== to.feedback) differs.push('feedback');
  if (differs.length === 0 && !isEqual(from.steps, to.steps)) differs.push('way');
  return differs;
}

const differenceWords: Record<Difference, string> = {
  mark: 'the mark',
  late: 'how late it is',
  rubric: 'the rubric',
  feedback: 'the feedback',
  way: 'how it comes about',
};

/** "30 of 40", "excused", "no mark". */
export function sayGiven(given: Pick<GivenMark, 'mark' | 'points'> | null): string {
  if (given === null) return 'no mark';
  return given.mark === null ? 'excused' : `${given.mark} of ${given.points}`;
}

/** "31.5 of 40 → 30 of 40", or what else would be otherwise. */
export function sayChange({ from, to, differs }: MarkChange): string {
  if (differs.includes('mark')) return `${sayGiven(from)} → ${sayGiven(to)}`;
  return differs.map((each) => differenceWords[each]).join(', ');
}
