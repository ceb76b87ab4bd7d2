import type { ActivityId, AudienceId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import type { Rubric } from '../marks/index.js';
import type { Instant } from '../release/index.js';
import type { SightFacts } from '../sightlines/index.js';
import type { RichTextNode } from '../text/index.js';

/** What was written in an activity, as far as something in it can be amiss. */
export interface WrittenFacts {
  readonly brief: RichTextNode;
  /** A decimal string; null: it is not marked. */
  readonly points: string | null;
  readonly rubric: Rubric | null;
  /** Something is to be done in it by a date. */
  readonly isWork: boolean;
  /** Why people in a group of so many cannot meet its requirement, as a sentence; null: they can. */
  readonly whyNotDone: (members: number) => string | null;
}

/** All that a course can be checked by. */
export interface CheckFacts {
  readonly sight: SightFacts;
  readonly written: ReadonlyMap<ActivityId, WrittenFacts>;
  readonly now: Instant;
}

/** Something in a course that its instructor will not have meant, with what it is about. */
export type Check =
  /** audienceId: of a saved audience that is empty, if it is that. */
  | {
      readonly code: 'reaches-no-one';
      readonly activityId: ActivityId;
      readonly audienceId: AudienceId | null;
    }
  /** Other groups of the set have it. */
  | {
      readonly code: 'groups-left-out';
      readonly activityId: ActivityId;
      readonly setId: GroupSetId;
      readonly groupIds: readonly GroupId[];
    }
  /** Students in no group of a set whose groups have these. */
  | {
      readonly code: 'unplaced';
      readonly setId: GroupSetId;
      readonly students: readonly EnrolmentId[];
      readonly activityIds: readonly ActivityId[];
    }
  /** It goes live when its time is over. */
  | {
      readonly code: 'live-too-late';
      readonly activityId: ActivityId;
      readonly goesLiveAt: Instant;
      readonly over: 'due' | 'closes';
      readonly at: Instant;
    }
  /** What a group or a student was granted is due before it opens. */
  | {
      readonly code: 'due-before-open';
      readonly activityId: ActivityId;
      readonly who: { readonly groupId: GroupId } | { readonly enrolmentId: EnrolmentId };
      readonly due: Instant;
      readonly opens: Instant;
    }
  /** Within an hour, for the same students; the earlier one first. */
  | {
      readonly code: 'due-together';
      readonly activityIds: readonly [ActivityId, ActivityId];
      readonly due: readonly [Instant, Instant];
      readonly students: readonly EnrolmentId[];
      /** Whose copies fall due together; what is one for all is no group's. */
      readonly inGroups: readonly GroupId[];
    }
  /** An assistant who sees only the groups they lead, and leads none. */
  | { readonly code: 'leads-none'; readonly enrolmentId: EnrolmentId }
  /** What the rubric adds up to; points null: the activity has none. */
  | {
      readonly code: 'rubric-points';
      readonly activityId: ActivityId;
      readonly sum: string;
      readonly points: string | null;
    }
  /** As they are typed, like {group name}. */
  | { readonly code: 'typed-placeholder'; readonly activityId: ActivityId; readonly words: readonly string[] }
  /** A line of the text for groups that do not get it, or for none; groupIds: those that it names. */
  | {
      readonly code: 'line-for-no-one';
      readonly activityId: ActivityId;
      readonly groupIds: readonly GroupId[];
    }
  | {
      readonly code: 'cannot-be-done';
      readonly activityId: ActivityId;
      readonly why: string;
      /** Of those that have a copy; none: all, and the one for all. */
      readonly groupIds: readonly GroupId[];
    };
