import { TZDate } from '@date-fns/tz';
import ical, { ICalCalendarMethod, ICalEventStatus, ICalEventTransparency } from 'ical-generator';
import type { Entry } from '@jigsaw/core/calendar';
import { zoneBlock } from '@jigsaw/core/calendar';

/** Entries as a calendar file (RFC 5545). The same entries give the same file. */
export function iCalendar(name: string, entries: readonly Entry[]): string {
  const momentsIn = (timeZone: string) =>
    entries.flatMap((entry) =>
      entry.timeZone === timeZone ? [entry.starts, entry.ends ?? entry.starts] : [],
    );
  const calendar = ical({
    name,
    prodId: { company: 'Jigsaw Room', product: 'Calendar', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    timezone: { name: null, generator: (timeZone) => zoneBlock(timeZone, momentsIn(timeZone)) },
  });
  for (const entry of entries) {
    const at = (instant: number) => new TZDate(instant, entry.timeZone);
    const event = calendar.createEvent({
      id: entry.uid,
      start: at(entry.starts),
      ...(entry.ends !== null && { end: at(entry.ends) }),
      timezone: entry.timeZone,
      summary: entry.summary,
      description: entry.description,
      location: entry.place === '' ? null : entry.place,
      url: entry.url,
      sequence: entry.version,
      stamp: new Date(entry.changedAt),
      lastModified: new Date(entry.changedAt),
      status: entry.isCancelled ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
    });
    // A due time takes no one's time.
    if (entry.ends === null) event.transparency(ICalEventTransparency.TRANSPARENT);
  }
  return `${calendar.toString()}\r\n`;
}
