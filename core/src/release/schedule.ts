import { sure } from '../lists/index.js';
import type { Extension, Schedule } from './facts.js';

/** Opens, due and closes must come in that order; any of them may be missing. */
export function inOrder({ opens, due, closes }: Schedule): boolean {
  const given = [opens, due, closes].filter((at) => at !== null);
  return given.every((at, index) => index === 0 || sure(given[index - 1]) <= at);
}

/** One group's dates: its extension is its due date, and what closes stays open at least until then. */
export function scheduleFor(schedule: Schedule, extension: Extension | null): Schedule {
  if (extension === null) return schedule;
  const { due } = extension;
  return {
    opens: schedule.opens,
    due,
    closes: schedule.closes === null ? null : Math.max(schedule.closes, due),
  };
}
