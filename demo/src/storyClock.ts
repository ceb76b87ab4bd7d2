import { sure } from '@jigsaw/core/lists';
import { Clock } from '@jigsaw/server';

export const timeZone = 'Europe/Lisbon';
const dayMs = 86_400_000;
const weekdays = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

/** The clock of the story: it is set from scene to scene, always in the past of the day of loading. */
export class StoryClock extends Clock {
  private current: Date;

  constructor(private readonly today: Date) {
    super();
    this.current = today;
  }

  /** Each look moves it on a little, so that two things never happen at one moment. */
  override now(): Date {
    this.current = new Date(this.current.getTime() + 50);
    return this.current;
  }

  /** "Fri 17:00" of the week that began so many weeks before this one. */
  weeksAgo(weeks: number, moment: string): void {
    this.current = new Date(this.at(weeks, moment));
  }

  daysAgo(days: number, time: string): void {
    this.current = new Date(this.inDays(-days, time));
  }

  at(weeks: number, moment: string): string {
    const [day, time] = moment.split(' ') as [string, string];
    const monday = new Date(
      this.today.getTime() - ((this.today.getUTCDay() + 6) % 7) * dayMs - weeks * 7 * dayMs,
    );
    const offset = (weekdays.indexOf(day) + 6) % 7;
    return atTime(new Date(monday.getTime() + offset * dayMs), time);
  }

  inDays(days: number, time: string): string {
    return atTime(new Date(this.today.getTime() + days * dayMs), time);
  }

  term(): string {
    const month = this.today.getUTCMonth();
    return `${month >= 7 ? 'Autumn' : 'Spring'} ${this.today.getUTCFullYear()}`;
  }
}

/** A wall-clock time in the course's zone, as an instant. */
function atTime(day: Date, time: string): string {
  const [hours, minutes] = time.split(':').map(Number) as [number, number];
  const asUtc = Date.UTC(day.getUTCFullYear(), day.getUTCMonth(), day.getUTCDate(), hours, minutes);
  return new Date(asUtc - offsetMs(asUtc)).toISOString();
}

const wall = new Intl.DateTimeFormat('en-GB', {
  timeZone,
  year: 'numeric',
  month: '2-digit',
  day: '2-digit',
  hour: '2-digit',
  minute: '2-digit',
  hourCycle: 'h23',
});

function offsetMs(instant: number): number {
  const part = Object.fromEntries(
    wall.formatToParts(instant).map(({ type, value }) => [type, Number(value)]),
  );
  return (
    Date.UTC(sure(part['year']), sure(part['month']) - 1, part['day'], part['hour'], part['minute']) - instant
  );
}
