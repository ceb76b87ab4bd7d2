import type { CopyView, RoomItem } from '@jigsaw/contract/handin';
import { sayMinutes } from '@jigsaw/core/handin';
import type { Dates } from '../look/index.js';

/** "Handed in Sat 7 Nov, 21:04, late 1 d 4 h": where the work stands, in words. */
export function sayState(item: Pick<RoomItem, 'state' | 'handedInAt' | 'late'>, dates: Dates): string {
  if (item.state === 'not-started') return 'Nothing written yet';
  if (item.handedInAt === null) return 'Begun, not handed in';
  const late = item.late && item.late.minutes > 0 ? `, late ${sayMinutes(item.late.minutes)}` : '';
  const since = item.state === 'changed-since' ? '; changed since' : '';
  return `Handed in ${dates.dateTime(item.handedInAt)}${late}${since}`;
}

/** What lateness costs, or would cost now. */
export function sayLate(late: CopyView['lateNow']): string | null {
  if (late.minutes === 0) return null;
  return late.deduction === '0' ? `late ${sayMinutes(late.minutes)}` : `late ${sayMinutes(late.minutes)}, −${late.deduction} points`;
}

export function saySize(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1000)} kB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}
