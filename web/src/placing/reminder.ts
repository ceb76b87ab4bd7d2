import type { BoardView } from '@jigsaw/contract/placing';
import type { Dates } from '../look/index.js';
import { isIn } from './seating.js';
import { counted } from '@jigsaw/core/text';

/** What those are written who have not chosen yet; changed as anybody likes before it goes. */
export function reminder(
  { set, groups, students }: BoardView,
  dates: Dates,
  course: { readonly id: string; readonly code: string },
): { subject: string; text: string } {
  const places = groups.reduce(
    (sum, group) =>
      sum +
      Math.max(
        0,
        (group.capacity ?? set.capacity ?? Infinity) -
          students.filter((student) => isIn(student, group.id)).length,
      ),
    0,
  );
  const until = set.signUp?.closes ? ` until ${dates.dateTime(set.signUp.closes)}` : '';
  const left = Number.isFinite(places) ? ` ${counted(places, 'place is', 'places are')} left.` : '';
  return {
    subject: `Choose your place in ${set.name}`,
    text: `You have no place in ${set.name} yet. Please choose one in ${course.code}${until}.${left}\n\n${window.location.origin}/c/${course.id}/choose/${set.id}\n\nIf none of the groups suits you, write to me.`,
  };
}
