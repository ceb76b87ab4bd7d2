import type { Role } from '../course/index.js';
import { unreachable } from '../ids/index.js';
import type { AudienceId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import type { Term } from './terms.js';

/** What things are called now; null: it is not there any more. */
export interface TermNames {
  readonly set: (id: GroupSetId) => string | null;
  readonly group: (id: GroupId) => string | null;
  readonly person: (id: EnrolmentId) => string | null;
  readonly audience: (id: AudienceId) => string | null;
}

const roles = {
  instructor: 'Instructors',
  assistant: 'Assistants',
  student: 'Students',
  observer: 'Observers',
} satisfies Record<Role, string>;

/** A term as part of a sentence: “Members of Crock”, “Free half-days has Mon am”. */
export function sayTerm(term: Term, names: TermNames): string {
  switch (term.kind) {
    case 'class':
      return 'All students';
    case 'role':
      return roles[term.role];
    case 'set':
      return `Everyone in ${names.set(term.setId) ?? 'a group set that was deleted'}`;
    case 'group':
      return `Members of ${names.group(term.groupId) ?? 'a group that was removed'}`;
    case 'person':
      return names.person(term.enrolmentId) ?? 'Someone who left the course';
    case 'attribute':
      return `${term.name} ${term.test} ${term.value}`;
    case 'audience':
      return `Audience ${names.audience(term.audienceId) ?? 'that was deleted'}`;
    default:
      return unreachable(term);
  }
}
