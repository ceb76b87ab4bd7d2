/** Ids are UUIDv7 strings; the brand keeps a group's id from being passed as a person's. */
export type Id<Kind extends string> = string & { readonly __kind: Kind };
export type PersonId = Id<'person'>;
export type SessionId = Id<'session'>;
export type CourseId = Id<'course'>;
export type EnrolmentId = Id<'enrolment'>;
export type GroupSetId = Id<'group-set'>;
export type GroupId = Id<'group'>;
export type ActivityId = Id<'activity'>;
export type ReleaseId = Id<'release'>;
export type CopyId = Id<'copy'>;
export type FileId = Id<'file'>;
export type HandInId = Id<'hand-in'>;
export type PostId = Id<'post'>;
export type MailId = Id<'mail'>;
export type RosterChangeId = Id<'roster-change'>;
export type PageId = Id<'page'>;
export type AudienceId = Id<'audience'>;
export type HeadingId = Id<'heading'>;
export type VisitId = Id<'visit'>;
export type CalendarAddressId = Id<'calendar-address'>;
export type NoteId = Id<'note'>;
export type ShelfFileId = Id<'shelf-file'>;
export type ThreadId = Id<'thread'>;
export type MessageId = Id<'message'>;
export type SendingId = Id<'sending'>;

/** A value that the types say cannot exist: a new variant does not compile until it is handled. */
export function unreachable(value: never): never {
  throw new Error(`unhandled variant: ${JSON.stringify(value)}`);
}

/** A broken promise of our own code, never something a person can cause. */
export function assert(condition: unknown, what: string): asserts condition {
  if (!condition) throw new Error(`broken invariant: ${what}`);
}
