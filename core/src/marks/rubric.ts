import { Decimal } from 'decimal.js';
import { Exact, roundMark } from './personMark.js';

/** Points and weights are decimal strings. */
export interface Level {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  readonly points: string;
}

export interface Criterion {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  /** How much it counts against the other criteria; above 0. */
  readonly weight: string;
  /** From the fewest points to the most. */
  readonly levels: readonly Level[];
}

export interface Rubric {
  readonly criteria: readonly Criterion[];
}

/** What a marker gave in one criterion; null points: not picked yet. */
export interface Pick {
  readonly points: string | null;
  readonly comment: string;
}

export type Picks = Readonly<Record<string, Pick>>;

/** The most points a criterion can give. */
export function mostOf({ levels }: Criterion): string {
  return Decimal.max(0, ...levels.map((level) => level.points)).toString();
}

/** The level that so many points stand in: the first that reaches them, so that 5.5 between 5 and 7 stands in the level of 7. */
export function levelOf({ levels }: Criterion, points: string | null): Level | null {
  if (points === null) return null;
  return levels.find((level) => new Decimal(level.points).gte(points)) ?? levels.at(-1) ?? null;
}

/** What a rubric comes to, as it is shown: {@link exactRubricMark}, rounded. */
export function rubricMark(rubric: Rubric, picks: Picks, points: string): string | null {
  const exact = exactRubricMark(rubric, picks, points);
  return exact === null ? null : roundMark(exact);
}

/** `points · Σ w·(picked/max) / Σ w` (CALC §7), not rounded yet.
 * @param points what the work is marked out of, a decimal string.
 * @returns null while a criterion is unpicked: never a silent zero. */
export function exactRubricMark({ criteria }: Rubric, picks: Picks, points: string): Decimal | null {
  // The sum as one fraction, divided once at the end.
  let numerator = new Exact(0);
  let denominator = new Exact(1);
  let weights = new Exact(0);
  for (const criterion of criteria) {
    const picked = picks[criterion.id]?.points ?? null;
    const most = mostOf(criterion);
    if (picked === null || most === '0') return null;
    numerator = numerator.times(most).plus(denominator.times(criterion.weight).times(picked));
    denominator = denominator.times(most);
    weights = weights.plus(criterion.weight);
  }
  return weights.isZero() ? null : numerator.times(points).div(denominator.times(weights));
}

export interface MarkSource {
  readonly rubric: Rubric | null;
  readonly picks: Picks;
  readonly points: string;
  /** Typed by the marker: the mark itself, or what replaces the rubric's. */
  readonly typed: string | null;
}

/** The mark as it stands, not rounded yet: what was typed, else what the rubric comes to. */
export function exactMarkFrom({ rubric, picks, points, typed }: MarkSource): Decimal | null {
  if (typed !== null) return new Exact(typed);
  return rubric === null ? null : exactRubricMark(rubric, picks, points);
}

/** The mark as it stands and is shown. What follows from it is worked out from {@link exactMarkFrom}, so that it is rounded once. */
export function markFrom(source: MarkSource): string | null {
  if (source.typed !== null) return source.typed;
  return source.rubric === null ? null : rubricMark(source.rubric, source.picks, source.points);
}

/** Whether what was typed stands in place of the rubric's own mark, and so needs a reason. */
export const isOverride = ({
  rubric,
  typed,
}: {
  readonly rubric: Rubric | null;
  readonly typed: string | null;
}): boolean => rubric !== null && typed !== null;
