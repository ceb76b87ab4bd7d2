import type { AudienceMembers, AudienceView } from '@jigsaw/contract/audiences';
import { courseId, id } from './people.js';

export const anAudience = (name: string, more: Partial<AudienceView> = {}): AudienceView => ({
  id: id(name),
  name,
  include: [],
  exclude: [],
  version: 1,
  people: 1,
  groups: 0,
  usedIn: [],
  ...more,
});

/** Answers in which there are these audiences, and whichever is asked about reaches these students. */
export const audienceAnswers = (audiences: readonly AudienceView[], names: readonly string[]) => ({
  [`GET courses/${courseId}/audiences`]: { audiences },
  [`POST courses/${courseId}/audiences/members`]: {
    people: names.map((name) => ({
      enrolmentId: id<'enrolment'>(name),
      name,
      reading: null,
      role: 'student' as const,
      by: { kind: 'class' as const },
    })),
    removed: [],
    groups: [],
    circle: null,
  } satisfies AudienceMembers,
});
