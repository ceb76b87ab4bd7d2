import type { Resolved } from '../audiences/index.js';
import type { AudienceId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';

type PlainEntry =
  | { readonly kind: 'class' }
  /** No student: staff see it as they see everything. */
  | { readonly kind: 'staff' }
  | { readonly kind: 'set'; readonly setId: GroupSetId }
  | { readonly kind: 'group'; readonly setId: GroupSetId; readonly groupId: GroupId }
  | { readonly kind: 'person'; readonly enrolmentId: EnrolmentId };

interface SavedEntry {
  readonly kind: 'audience';
  readonly audienceId: AudienceId;
}
export type KeptEntry = PlainEntry | SavedEntry;

/** Who something is released to as it is kept: by reference, so that it follows moves. */
export interface KeptAudience {
  readonly include: readonly KeptEntry[];
  readonly exclude: readonly EnrolmentId[];
}

/** Without saved ones: the same kept and evaluated. */
export interface PlainAudience {
  readonly include: readonly PlainEntry[];
  readonly exclude: readonly EnrolmentId[];
}

/** A saved audience stands with who it reaches now. */
export type AudienceEntry = PlainEntry | (SavedEntry & Pick<Resolved, 'people' | 'groups'>);

/** The same, evaluated when asked. */
export interface Audience extends KeptAudience {
  readonly include: readonly AudienceEntry[];
}

/** own: a private copy a group; read-along: groups may read each other's; common: one copy for all. */
export type ReleaseMode = 'own' | 'read-along' | 'common';

/** What people outside the audience learn: nothing, or that it exists. */
export type OutsiderRule = 'hidden' | 'listed';

/** Milliseconds since 1970, UTC. */
export type Instant = number;

export interface Schedule {
  readonly opens: Instant | null;
  readonly due: Instant | null;
  readonly closes: Instant | null;
}

export type ReleaseState =
  | { readonly state: 'draft' }
  | { readonly state: 'scheduled'; readonly goesLiveAt: Instant }
  | { readonly state: 'live' | 'closed' | 'withdrawn'; readonly since: Instant };

export interface ReleaseFacts {
  readonly courseId: CourseId;
  readonly state: ReleaseState;
  readonly mode: ReleaseMode;
  readonly audience: Audience;
  readonly outsiders: OutsiderRule;
  readonly schedule: Schedule;
  /** Students who were granted time of their own, whichever copy is theirs. */
  readonly ownTime: ReadonlyMap<EnrolmentId, Extension>;
}

/** What one group works in; `groupId` null is the one common copy. */
export interface CopyFacts {
  readonly groupId: GroupId | null;
  readonly setId: GroupSetId | null;
  /** What this group was granted beyond the others. */
  readonly extension: Extension | null;
}

/** More time for one group, or for one student; its reason is kept where people read it. */
export interface Extension {
  readonly due: Instant;
  /** null: when it closes for all. */
  readonly closes: Instant | null;
}
