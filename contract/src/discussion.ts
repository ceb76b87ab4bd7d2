import { z } from 'zod';
import { DateTime, PostId } from './common.js';
import { Author } from './course.js';
import { RichText, StoredRichText } from './text.js';

const Wanted = z.number().int().min(0).max(50);
const Words = z.number().int().min(0).max(10_000);

export const DiscussionSettings = z.strictObject({
  studentsOpenThreads: z.boolean().default(true),
  /** What each student must write; 0 of both: nothing. */
  posts: Wanted.default(0),
  postWords: Words.default(0),
  replies: Wanted.default(0),
  replyWords: Words.default(0),
  /** One mark for the group, or one for each student. */
  markFor: z.enum(['group', 'student']).default('student'),
});
export type DiscussionSettings = z.infer<typeof DiscussionSettings>;

export const PostView = z.object({
  id: PostId,
  threadId: PostId,
  /** The post that this one answers; null: it opens a thread. */
  parentId: PostId.nullable(),
  author: Author,
  /** null: deleted. Its replies stay. */
  text: StoredRichText.nullable(),
  words: z.number().int(),
  version: z.number().int(),
  createdAt: DateTime,
  editedAt: DateTime.nullable(),
  deletedBy: z.enum(['you', 'author', 'staff']).nullable(),
  isNew: z.boolean(),
  mayChange: z.boolean(),
  mayDelete: z.boolean(),
});
export type PostView = z.infer<typeof PostView>;

const Count = z.object({ done: z.number().int(), asked: z.number().int() });

const Thread = z.object({ id: PostId, posts: z.array(PostView) });

/** A moment in the order of all that happened in a talk, to ask with for what came since. */
export const TalkMoment = z.int32().min(0);

export const DiscussionView = z.object({
  threads: z.array(Thread),
  asOf: TalkMoment,
  /** Send as `after` to read on; null: this is the end. */
  next: PostId.nullable(),
  mayOpenThread: z.boolean(),
  mayReply: z.boolean(),
  /** What each student must write, and how far they are: a student sees themselves, staff see everyone. */
  met: z.array(
    z.object({
      member: Author,
      posts: Count,
      replies: Count,
      words: z.number().int(),
      isComplete: z.boolean(),
      suggested: z.string().nullable(),
    }),
  ),
});
export type DiscussionView = z.infer<typeof DiscussionView>;

/** What became of a talk since a moment. */
export const TalkChanges = z.object({
  asOf: TalkMoment,
  /** Those in which something happened, each whole, as they were begun; one without posts is gone. null: too many to tell, so read the talk again. */
  threads: z.array(Thread).nullable(),
  met: DiscussionView.shape.met,
});
export type TalkChanges = z.infer<typeof TalkChanges>;

/** A post as it stands now, and how far that brings those that one may know of. */
export const PostSaved = PostView.extend({ met: DiscussionView.shape.met });
export type PostSaved = z.infer<typeof PostSaved>;

/** The page makes the id, so that a press that is sent twice writes one post. */
export const AddPost = z.strictObject({ id: PostId, parentId: PostId.nullable(), text: RichText });
export type AddPost = Omit<z.infer<typeof AddPost>, 'text'> & { readonly text: RichText };

export const ChangePost = z.strictObject({ text: RichText, version: z.number().int().min(1) });
export interface ChangePost {
  readonly text: RichText;
  readonly version: number;
}
