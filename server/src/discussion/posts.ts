import type { EntityManager } from 'typeorm';
import type { CopyId, PostId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { problems } from '../platform/problems.js';
import type { CopyAccess } from '../release/index.js';
import { lockCopy } from '../release/index.js';
import { PostRow } from './discussion.rows.js';

/** How far it is in the order of what happens in a copy. */
export async function momentOf(manager: EntityManager, copyId: CopyId): Promise<number> {
  const [row] = await manager.query<{ turn: number }[]>(
    `SELECT coalesce(max("turn"), 0) AS "turn" FROM "post" WHERE "copyId" = $1`,
    [copyId],
  );
  return sure(row).turn;
}

/** What was deleted stands as a gap only where something hangs on it, or for anyone who may put it back.
 * @param all of its thread. */
export function isShown(post: PostRow, all: readonly PostRow[], access: CopyAccess): boolean {
  if (post.deletedAt === null || post.deletedBy === access.viewer.enrolmentId) return true;
  return all.some(
    (other) => other.deletedAt === null && (other.parentId === post.id || post.parentId === null),
  );
}

/** The next place in the order of what happens in a copy; anyone who has it has it alone until the end of the transaction. */
export async function nextTurn(manager: EntityManager, copyId: CopyId): Promise<number> {
  await lockCopy(manager, copyId);
  return (await momentOf(manager, copyId)) + 1;
}

export async function lockPost(manager: EntityManager, copyId: CopyId, postId: PostId): Promise<PostRow> {
  const post = await manager.findOne(PostRow, {
    where: { id: postId, copyId },
    lock: { mode: 'pessimistic_write' },
  });
  if (!post) throw problems.notFound();
  return post;
}
