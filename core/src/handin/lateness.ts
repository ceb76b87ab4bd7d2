import { Decimal } from 'decimal.js';

export interface LatePolicy {
  /** Late by this much or less is on time; beyond it the whole delay counts. */
  readonly graceMinutes: number;
  /** Taken off for each period begun. */
  readonly stepPercent: number;
  readonly periodMinutes: number;
  readonly capPercent: number;
}

export interface Lateness {
  readonly minutes: number;
  readonly periodsBegun: number;
  /** Points, a decimal string. */
  readonly deduction: string;
}

export const noLatePolicy: LatePolicy = {
  graceMinutes: 0,
  stepPercent: 0,
  periodMinutes: 1440,
  capPercent: 100,
};

/** How late a hand-in is and what that costs, in points (CALC §6). Whole minutes, begun ones left out.
 * @param due milliseconds, of this group: the extension if there is one; null means never late.
 * @param points what the work is marked out of, a decimal string. */
export function lateness(
  handedInAt: number,
  due: number | null,
  policy: LatePolicy,
  points: string,
): Lateness {
  const minutes = due === null ? 0 : Math.max(0, Math.floor((handedInAt - due) / 60_000));
  if (minutes <= policy.graceMinutes) return { minutes: 0, periodsBegun: 0, deduction: '0' };
  const periodsBegun = Math.ceil(minutes / policy.periodMinutes);
  const percent = Decimal.min(new Decimal(policy.stepPercent).times(periodsBegun), policy.capPercent);
  return { minutes, periodsBegun, deduction: new Decimal(points).times(percent).div(100).toString() };
}

/** "1 d 4 h 5 min": a delay as people say it. */
export function sayMinutes(minutes: number): string {
  const days = Math.floor(minutes / 1440);
  const hours = Math.floor((minutes % 1440) / 60);
  const rest = minutes % 60;
  const parts = [days > 0 ? `${days} d` : '', hours > 0 ? `${hours} h` : '', rest > 0 ? `${rest} min` : ''];
  return parts.filter((part) => part !== '').join(' ') || '0 min';
}

const periodWords = new Map([
  [60, 'hour'],
  [1440, 'day'],
  [10_080, 'week'],
]);

/** What being late costs, as it is computed: grace is no gift of minutes, since beyond it the whole delay counts. */
export function sayLatePolicy({ graceMinutes, stepPercent, periodMinutes, capPercent }: LatePolicy): string {
  if (stepPercent === 0 || capPercent === 0) return 'Late work loses no points.';
  const period = periodWords.get(periodMinutes) ?? sayMinutes(periodMinutes);
  const most = capPercent < 100 ? `, up to ${capPercent} %` : '';
  const cost = `${stepPercent} % of the points per ${period} started${most}`;
  return graceMinutes === 0
    ? `Late work loses ${cost}.`
    : `Up to ${sayMinutes(graceMinutes)} late costs nothing. After that, late work loses ${cost}, counted from the due time.`;
}
