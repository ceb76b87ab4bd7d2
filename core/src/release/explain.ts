import type { AudienceId, GroupId, GroupSetId } from '../ids/index.js';
import { unreachable } from '../ids/index.js';
import { sure } from '../lists/index.js';
import type { Access, Decision, Reason } from './decide.js';
import type { Instant } from './facts.js';

/** How the reader writes times and what groups are called; the core knows neither. */
export interface Wording {
  readonly dateTime: (at: Instant) => string;
  readonly groupName: (groupId: GroupId) => string;
  readonly setName: (setId: GroupSetId) => string;
  readonly audienceName: (audienceId: AudienceId) => string;
  /** Said to the person themselves: "You are…" instead of "Is…". */
  readonly isToYou?: boolean;
}

const verdicts = {
  open: 'Can read and work in it.',
  'read-only': 'Can read it, but not change it.',
  listed: 'Sees that it exists, but cannot open it.',
  hidden: 'Sees nothing of it.',
} satisfies Record<Access, string>;

/** A decision in sentences, the verdict first. */
export function explain(decision: Decision, wording: Wording): string[] {
  const said = [
    verdicts[decision.access],
    ...decision.reasons.map((reason) => explainReason(reason, wording)),
  ];
  return wording.isToYou ? said.map(toYou) : said;
}

const secondPerson: Readonly<Record<string, string>> = {
  Is: 'You are',
  Has: 'You have',
  Was: 'You were',
  Can: 'You can',
  Sees: 'You see',
};
const toYou = (sentence: string) =>
  sentence
    .replace(/^(Is|Has|Was|Can|Sees)\b/, (verb) => sure(secondPerson[verb]))
    .replace('to this person', 'to you')
    .replace('of their own', 'of your own');

function explainReason(reason: Reason, wording: Wording): string {
  switch (reason.code) {
    case 'not-in-course':
      return 'Is not in this course.';
    case 'left-course':
      return 'Has left the course.';
    case 'staff':
      return reason.role === 'instructor'
        ? 'Instructors see everything in their course.'
        : 'Assistants see the groups of this course.';
    case 'leads':
      return `Leads ${wording.groupName(reason.groupId)}.`;
    case 'leads-others':
      return 'Assistants see only the groups that they lead, and this is not one of them.';
    case 'observer':
      return 'Observers may look but not change.';
    case 'draft':
      return 'It is still a draft.';
    case 'withdrawn':
      return `It was withdrawn on ${wording.dateTime(reason.since)}.`;
    case 'scheduled':
      return `It will be released on ${wording.dateTime(reason.goesLiveAt)}.`;
    case 'left-out':
      return 'Was left out of the audience by name.';
    case 'outside-audience':
      return 'Is in none of the groups it was released to.';
    case 'audience-entry':
      switch (reason.entry.kind) {
        case 'class':
          return 'It was released to the whole class.';
        case 'set':
          return `It was released to ${wording.setName(reason.entry.setId)}.`;
        case 'group':
          return `It was released to ${wording.groupName(reason.entry.groupId)}.`;
        case 'person':
          return 'It was released to this person by name.';
        case 'audience':
          return `It was released to ${wording.audienceName(reason.entry.audienceId)}, of which this person is one.`;
        case 'staff':
          return 'It was released to staff only.';
        default:
          return unreachable(reason.entry);
      }
    case 'own-copy':
      return `Is a member of ${wording.groupName(reason.groupId)}, which has this copy for itself.`;
    case 'other-groups-copy':
      return 'This copy belongs to another group.';
    case 'no-copy':
      return 'Is in none of the groups that get a copy.';
    case 'reads-along':
      return 'Groups read along in each other’s copies.';
    case 'common-copy':
      return 'Everyone works in one copy.';
    case 'not-open-yet':
      return `It opens on ${wording.dateTime(reason.opens)}.`;
    case 'closed':
      return `It has been closed since ${wording.dateTime(reason.since)}.`;
    case 'extended':
      return reason.isOwn
        ? `Has until ${wording.dateTime(reason.due)}, by an extension of their own.`
        : `This group has until ${wording.dateTime(reason.due)}.`;
    case 'outsiders-listed':
      return 'Others may know that it exists.';
    default:
      return unreachable(reason);
  }
}
