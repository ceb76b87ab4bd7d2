import type { Drafted } from '@jigsaw/core/marks';
import { draftedTogether, sayDrafted } from '@jigsaw/core/marks';
import type { eventsAbout } from '../platform/events.js';
import type { Unit } from '../release/index.js';
import { plainDecimal } from '../release/index.js';

type MarkEvent = Awaited<ReturnType<typeof eventsAbout>>[number];

/** How long a marker may stop and still be at the same change. */
const oneChangeMs = 60_000;

/** The history of a sheet, newest first, with what one marker saved while they typed put together. */
export function told(events: readonly MarkEvent[]): MarkEvent[] {
  const all: MarkEvent[] = [];
  for (const event of events) {
    const later = all.at(-1);
    const isOneChange =
      later?.type === 'mark.drafted' &&
      event.type === 'mark.drafted' &&
      later.actorId === event.actorId &&
      later.at.getTime() - event.at.getTime() <= oneChangeMs;
    if (!isOneChange) all.push(event);
    else
      all[all.length - 1] = {
        ...later,
        facts: { ...later.facts, ...draftedTogether(draftedIn(event.facts), draftedIn(later.facts)) },
      };
  }
  return all;
}

/** Events of before adjustments were kept in them tell of the mark alone. */
function draftedIn(facts: Record<string, unknown>): Drafted {
  const mark = (value: unknown) => (typeof value === 'string' ? plainDecimal(value) : null);
  return {
    from: mark(facts['from']),
    to: mark(facts['to']),
    adjustments: (facts['adjustments'] ?? []) as Drafted['adjustments'],
    reason: typeof facts['reason'] === 'string' ? facts['reason'] : null,
    isFeedbackChanged: facts['isFeedbackChanged'] === true,
  };
}

export function sayEvent(
  type: string,
  facts: Record<string, unknown>,
  unit: Unit,
  nameOf: (enrolmentId: string) => string,
): string | null {
  const students = facts['students'] === 1 ? '1 student' : `${String(facts['students'])} students`;
  if (type === 'mark.released') return `Released to ${students}`;
  if (type === 'mark.recalled') return `Recalled from ${students}`;
  const said = sayDrafted(draftedIn(facts), unit, nameOf);
  return said === null ? null : said.charAt(0).toUpperCase() + said.slice(1);
}
