import type { CheckFound, CheckList } from '@jigsaw/contract/checks';
import { unreachable } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { counted, namesTogether } from '@jigsaw/core/text';
import type { Dates } from '../look/index.js';

/** What the things are called that checks are about. */
export interface CheckNames {
  readonly activity: (id: string) => string;
  readonly group: (id: string) => string;
  readonly set: (id: string) => string;
  readonly person: (id: string) => string;
  readonly audience: (id: string) => string;
}

export function namesOf(list: CheckList): CheckNames {
  const activities = keyedBy(list.activities, ({ activityId }) => activityId as string);
  const groups = keyedBy(list.groups, ({ groupId }) => groupId as string);
  const sets = keyedBy(list.sets, ({ setId }) => setId as string);
  const people = keyedBy(list.people, ({ enrolmentId }) => enrolmentId as string);
  const audiences = keyedBy(list.audiences, ({ audienceId }) => audienceId as string);
  return {
    activity: (id) => {
      const title = activities.get(id)?.title;
      return title === undefined ? 'An activity' : `“${title}”`;
    },
    group: (id) => groups.get(id)?.name ?? 'an archived group',
    set: (id) => sets.get(id)?.name ?? 'an archived set',
    person: (id) => people.get(id)?.name ?? 'someone',
    audience: (id) => audiences.get(id)?.name ?? 'a saved audience',
  };
}

export interface SaidCheck {
  readonly title: string;
  readonly detail: string;
}

/** So many are named; of more there is the number. */
const mostNamed = 3;
const someOf = (ids: readonly string[], nameOf: (id: string) => string, what: string, many?: string) =>
  ids.length <= mostNamed ? namesTogether(ids.map(nameOf)) : counted(ids.length, what, many);

/** What is amiss, and what follows from it, in two sentences. */
export function sayCheck(found: CheckFound, names: CheckNames, dates: Dates): SaidCheck {
  const title = 'activityId' in found ? names.activity(found.activityId) : '';
  const groups = (ids: readonly string[]) => someOf(ids, names.group, 'group');
  const who = ({ count, named }: { readonly count: number; readonly named: readonly string[] }) =>
    named.length === count ? namesTogether(named.map(names.person)) : counted(count, 'student');
  switch (found.code) {
    case 'reaches-no-one':
      return {
        title: `${title} reaches no one`,
        detail:
          found.audienceId === null
            ? 'No student is in the groups that it goes to.'
            : `No student is in ${names.audience(found.audienceId)} now.`,
      };
    case 'groups-left-out':
      return {
        title: `${title} leaves out ${groups(found.groupIds)}`,
        detail: `The other groups of ${names.set(found.setId)} have it.`,
      };
    case 'unplaced': {
      const { students, activityIds } = found;
      const is = students.count === 1 ? 'is' : 'are';
      return {
        title: `${who(students)} ${is} in no group of ${names.set(found.setId)}`,
        detail: `${students.count === 1 ? 'This student sees' : 'They see'} nothing of ${someOf(activityIds, names.activity, 'activity', 'activities')}.`,
      };
    }
    case 'live-too-late':
      return {
        title: `${title} goes live ${found.over === 'due' ? 'after it is due' : 'when it is closed'}`,
        detail: `It goes live on ${dates.dateTime(found.goesLiveAt)}, and ${found.over === 'due' ? 'is due' : 'closes'} on ${dates.dateTime(found.at)}.`,
      };
    case 'due-before-open': {
      const who = 'groupId' in found.who ? names.group(found.who.groupId) : names.person(found.who.enrolmentId); // prettier-ignore
      return {
        title: `${title} is due for ${who} before it opens`,
        detail: `It is due on ${dates.dateTime(found.due)}, and opens on ${dates.dateTime(found.opens)}.`,
      };
    }
    case 'due-together': {
      const [first, second] = found.activityIds;
      const [one, other] = found.due;
      const when = one === other ? `Both on ${dates.dateTime(one)}` : `On ${dates.dateTime(one)} and ${dates.dateTime(other)}`; // prettier-ignore
      return {
        title: `${names.activity(first)} and ${names.activity(second)} are due within an hour`,
        detail: `${when}, for ${who(found.students)}.`,
      };
    }
    case 'leads-none':
      return {
        title: `${names.person(found.enrolmentId)} leads no group`,
        detail: 'Assistants see only the groups that they lead here, so that they see no group’s work.',
      };
    case 'rubric-points':
      return found.points === null
        ? { title: `${title} has a rubric and no points`, detail: 'Without points it cannot be marked.' }
        : {
            title: `The rubric of ${title} adds up to ${found.sum}, the activity has ${found.points} points`,
            detail: 'Marks are scaled to the points of the activity. Students see both numbers.',
          };
    case 'typed-placeholder':
      return {
        title: `${title} says ${namesTogether(found.words.map((word) => `“${word}”`))} to everyone`,
        detail: 'It is typed, so that every group reads it as it stands. Insert the placeholder instead.',
      };
    case 'line-for-no-one':
      return {
        title: `A line of ${title} is read by no group`,
        detail:
          found.groupIds.length === 0
            ? 'No group is chosen for it.'
            : `It is for ${groups(found.groupIds)}, and ${title} does not go there.`,
      };
    case 'cannot-be-done':
      return {
        title: `${title} cannot be completed${found.groupIds.length > 0 ? ` by ${groups(found.groupIds)}` : ''}`,
        detail: found.why,
      };
    default:
      return unreachable(found);
  }
}
