/** How this product writes times: "Fri 6 Nov, 17:00", always in the course's zone. */
export interface Dates {
  readonly dateTime: (iso: string) => string;
  readonly day: (iso: string) => string;
  readonly time: (iso: string) => string;
  /** "in 2 days", "3 hours ago". */
  readonly fromNow: (iso: string, now?: number) => string;
  readonly isPast: (iso: string) => boolean;
}

const made = new Map<string, Dates>();

export function datesIn(timeZone: string): Dates {
  const known = made.get(timeZone);
  if (known) return known;
  const format = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-GB', { timeZone, ...options });
  const day = format({ weekday: 'short', day: 'numeric', month: 'short' });
  const time = format({ hour: '2-digit', minute: '2-digit' });
  const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto' });
  const sayDay = (iso: string) => day.format(new Date(iso)).replace(',', '');
  const dates: Dates = {
    day: sayDay,
    time: (iso) => time.format(new Date(iso)),
    dateTime: (iso) => `${sayDay(iso)}, ${time.format(new Date(iso))}`,
    fromNow: (iso, now = Date.now()) => {
      const minutes = (Date.parse(iso) - now) / 60_000;
      if (Math.abs(minutes) < 60) return relative.format(Math.round(minutes), 'minute');
      if (Math.abs(minutes) < 60 * 36) return relative.format(Math.round(minutes / 60), 'hour');
      return relative.format(Math.round(minutes / 1440), 'day');
    },
    isPast: (iso) => Date.parse(iso) < Date.now(),
  };
  made.set(timeZone, dates);
  return dates;
}
