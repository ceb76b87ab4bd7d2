import type { EnrolmentId } from '@jigsaw/core/ids';
import type { CopyDates } from '@jigsaw/core/release';
import { datesFor, isOut as isOutNow } from '@jigsaw/core/release';
import { extensionOf, scheduleOf, stateOf } from './facts.js';
import type { GrantedRow, OwnTime } from './facts.js';
import type { ActivityRow, ReleaseRow } from './release.rows.js';

/** What the dates of a copy come from. */
interface Extended {
  readonly activity: ActivityRow;
  readonly extension: GrantedRow | null;
  readonly ownTime: OwnTime;
}
/** With the dates of the one who asks. */
interface Dated extends Extended {
  readonly schedule: CopyDates;
}
interface Released {
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
}

/** The dates of a copy for one person; null: for its group. */
export function workedOut(
  { activity, extension, ownTime }: Extended,
  enrolmentId: EnrolmentId | null,
): CopyDates {
  const own = enrolmentId === null ? undefined : ownTime.get(enrolmentId);
  return datesFor(scheduleOf(activity), extension && extensionOf(extension), own ? extensionOf(own) : null);
}

/** The same, where most have the dates of the asker.
 * @param enrolmentId whose; null: the group's. */
export const datesOf = (access: Dated, enrolmentId: EnrolmentId | null): CopyDates =>
  access.ownTime.size === 0 ? access.schedule : workedOut(access, enrolmentId);

/** When the last of these people is due; milliseconds. null: never. */
export function lastDueOf(access: Dated, people: readonly EnrolmentId[]): number | null {
  const { due } = datesOf(access, null);
  if (due === null) return null;
  return people.reduce((latest, id) => Math.max(latest, datesOf(access, id).due ?? due), due);
}

/** Whether its members can be in it now. */
export const isOut = (
  { release, schedule }: Pick<Dated, 'schedule'> & Pick<Released, 'release'>,
  now: Date,
): boolean => isOutNow(stateOf(release), schedule, now.getTime());

/** The same for all of its copies: more time for a group changes when it is due and closes, never from when it is out. */
export const isOutForAll = ({ release, activity }: Released, now: Date): boolean =>
  isOutNow(stateOf(release), scheduleOf(activity), now.getTime());

/** When the next of these is no longer in time, for its group or for anyone with time of their own; null: none is. Milliseconds. */
export function nextDue(
  accesses: readonly Pick<Dated, 'schedule' | 'ownTime'>[],
  now: number,
): number | null {
  const dues = accesses.flatMap(({ schedule, ownTime }) => [
    ...(schedule.due === null ? [] : [schedule.due]),
    ...(ownTime.size === 0 ? [] : [...ownTime.values()].map(({ due }) => due.getTime())),
  ]);
  return dues.reduce<number | null>((first, due) => {
    if (due < now) return first;
    return first === null ? due + 1 : Math.min(first, due + 1);
  }, null);
}

export const dueOf = ({ schedule }: Pick<Dated, 'schedule'>): Date | null =>
  schedule.due === null ? null : new Date(schedule.due);
