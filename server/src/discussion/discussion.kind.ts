import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { Progress } from '@jigsaw/contract/release';
import type { RequirementsMet } from '@jigsaw/core/discussion';
import { requirementsMet, suggestedMark } from '@jigsaw/core/discussion';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { discussionFacts } from '@jigsaw/core/discussion';
import { authorsById } from '../course/index.js';
import type { ActivityKind, Asked, CopyAccess, Evidence, OpenQuestions, UnitWork } from '../release/index.js';
import { datesOf, Kinds, lastDueOf, onTime, plainDecimal } from '../release/index.js';
import type { PostRow } from './discussion.rows.js';
import { postsSql, Talks } from './talks.js';
import { whoseFigures } from '@jigsaw/core/release';
import { counted } from '@jigsaw/core/text';

/** A question mark of whatever script; of the Latin one only where a sentence ends, as links have it, too. */
const asks = String.raw`[？؟]|\?(?![^\s"'”’»)\]!?])`;

const sentenceThatAsks = String.raw`[^.!?？؟。\n]*(?:${asks})`;

@Injectable()
export class DiscussionKind implements ActivityKind<DiscussionSettings> {
  readonly name = discussionFacts.name;
  readonly modes = discussionFacts.modes;
  readonly markFor = discussionFacts.markFor;
  readonly isHandedIn = discussionFacts.isHandedIn;
  readonly isWork = discussionFacts.isWork;
  readonly isMarked = discussionFacts.isMarked;
  readonly whyNotDone = discussionFacts.whyNotDone;
  readonly settings = DiscussionSettings;

  constructor(
    private readonly kinds: Kinds,
    private readonly talks: Talks,
  ) {
    kinds.register(this);
    talks.register(this.name, (settings) => settings as DiscussionSettings);
  }

  itemsSql(copies: string): string {
    return postsSql(copies);
  }

  /** A student's post with a question mark at the end of a sentence, after which no one else wrote in its thread. */
  async openQuestions(
    manager: EntityManager,
    copyIds: readonly CopyId[],
  ): Promise<ReadonlyMap<CopyId, OpenQuestions>> {
    const rows = await manager.query<(OpenQuestions & { readonly copyId: CopyId })[]>(
      `SELECT p."copyId", count(*)::int AS "count", min(p."createdAt") AS "since", max(p."createdAt") AS "newest",
              (array_agg(p."id" ORDER BY p."createdAt"))[1] AS "postId", (array_agg(a."name" ORDER BY p."createdAt"))[1] AS "by",
              left(btrim(substring((array_agg(p."plain" ORDER BY p."createdAt"))[1] FROM $3)), 140) AS "excerpt"
         FROM "post" p JOIN "author" a ON a."enrolmentId" = p."authorId" AND a."role" = 'student'
        WHERE p."copyId" = ANY($1) AND p."deletedAt" IS NULL AND p."plain" ~ $2
          AND NOT EXISTS (SELECT 1 FROM "post" o WHERE o."threadId" = p."threadId" AND o."createdAt" > p."createdAt" AND o."authorId" <> p."authorId" AND o."deletedAt" IS NULL)
        GROUP BY 1`,
      [copyIds, asks, sentenceThatAsks],
    );
    return new Map(rows.map(({ copyId, ...questions }) => [copyId, questions]));
  }

  async progress(asked: Asked): Promise<Map<string, Progress>> {
    const postsIn = await this.posts(asked);
    return new Map(
      asked.accesses.map((access) => {
        const { copy, viewer, decision } = access;
        const here = postsIn(copy.id);
        const isMember = decision.part === 'member';
        const by = groupedBy(here, (post) => post.authorId);
        const own = isMember ? (by.get(viewer.enrolmentId) ?? []) : here;
        const settings = this.talks.ruleOf(access);
        const isCounted = whoseFigures('what-each-did', decision.part, viewer.role) !== 'none';
        const isAsking = isCounted && settings.posts + settings.replies > 0;
        const members = asked.membersOf(copy.id);
        const complete = members.filter(
          (id) => isAsking && !isMember && this.met(access, by.get(id) ?? [], id).isComplete,
        );
        const mine = isMember ? this.met(access, own, viewer.enrolmentId) : null;
        const isDone =
          isAsking && (mine ? mine.isComplete : members.length > 0 && complete.length === members.length);
        return [
          copy.id,
          {
            state: isDone ? 'done' : own.length > 0 ? 'in-work' : 'not-started',
            isYours: isMember,
            owes: isMember && decision.access === 'open' && isAsking && !isDone,
            at: latestOf(own)?.createdAt.toISOString() ?? null,
            late: null,
            done: !isAsking ? null : mine ? doneOf(mine) : complete.length,
            asked: !isAsking ? null : isMember ? settings.posts + settings.replies : members.length,
          },
        ];
      }),
    );
  }

  async works(asked: Asked): Promise<UnitWork[]> {
    const postsIn = await this.posts(asked);
    const authors = asked.accesses.flatMap(({ copy }) => postsIn(copy.id).map((post) => post.authorId));
    const name = await authorsById(asked.manager, [...new Set(authors)], '');
    return asked.accesses.flatMap((access) => {
      const { copy, activity } = access;
      const members = asked.membersOf(copy.id);
      const isIn = new Set(members);
      const here = postsIn(copy.id).filter((post) => isIn.has(post.authorId));
      const by = groupedBy(here, (post) => post.authorId);
      const one = (
        unit: UnitWork['unit'],
        own: readonly Counted[],
        credited: readonly EnrolmentId[],
      ): UnitWork => {
        const latest = latestOf(own);
        const due = lastDueOf(access, credited);
        const isOver = due !== null && asked.now.getTime() > due;
        const met = unit === 'group' ? null : this.met(access, own, unit);
        const suggested =
          met && activity.points !== null ? suggestedMark(plainDecimal(activity.points), met) : null;
        const isAsking = met?.met != null;
        return {
          copyId: copy.id,
          unit,
          latest: latest && { at: latest.editedAt ?? latest.createdAt, by: name(latest.authorId).name },
          // Where something is asked it is ready once done; otherwise when its time is over, or at once if it has none.
          isComplete:
            latest !== null && ((isAsking && met.isComplete) || isOver || (!isAsking && due === null)),
          late: onTime,
          credited,
          suggestion: suggested === null || met === null ? null : { mark: suggested, why: sayMet(met) },
        };
      };
      if (this.kinds.markFor(access) === 'group') return [one('group', here, members)];
      return members.map((id) => one(id, by.get(id) ?? [], [id]));
    });
  }

  async evidence(asked: Asked): Promise<Map<string, Map<string, Evidence[]>>> {
    const postsIn = await this.posts(asked);
    return new Map(
      asked.accesses.map(({ copy }) => {
        const by = groupedBy(postsIn(copy.id), (post) => post.authorId);
        const authors = new Set([...by.keys(), ...asked.membersOf(copy.id)]);
        const figures = (own: readonly Counted[]): Evidence[] => [
          { label: 'posts', value: String(own.filter((post) => post.parentId === null).length) },
          { label: 'replies', value: String(own.filter((post) => post.parentId !== null).length) },
          { label: 'words', value: String(own.reduce((sum, post) => sum + post.words, 0)) },
        ];
        return [copy.id, new Map([...authors].map((id) => [id, figures(by.get(id) ?? [])]))];
      }),
    );
  }

  /** What one student has done of the requirement, from their own posts in one copy. */
  met(access: CopyAccess, own: readonly Counted[], whose: EnrolmentId): RequirementsMet {
    return requirementsMet(
      this.talks.ruleOf(access),
      own.map((post) => ({
        isReply: post.parentId !== null,
        words: post.words,
        at: post.createdAt.getTime(),
      })),
      datesOf(access, whose).due,
    );
  }

  /** Texts are not needed to count them. */
  private async posts({ accesses, manager }: Asked): Promise<(copyId: CopyId) => readonly Counted[]> {
    const rows = await manager.query<Counted[]>(
      `SELECT "copyId", "parentId", "authorId", "words", "createdAt", "editedAt" FROM "post" WHERE "copyId" = ANY($1) AND "deletedAt" IS NULL`,
      [accesses.map((access) => access.copy.id)],
    );
    const ofCopy = groupedBy(rows, (post) => post.copyId);
    return (copyId) => ofCopy.get(copyId) ?? [];
  }
}

type Counted = Pick<PostRow, 'copyId' | 'parentId' | 'authorId' | 'words' | 'createdAt' | 'editedAt'>;

function latestOf(posts: readonly Counted[]): Counted | null {
  const at = (post: Counted) => (post.editedAt ?? post.createdAt).getTime();
  return posts.reduce<Counted | null>(
    (latest, post) => (latest === null || at(post) > at(latest) ? post : latest),
    null,
  );
}

const doneOf = ({ posts, replies }: RequirementsMet) =>
  Math.min(posts.done, posts.asked) + Math.min(replies.done, replies.asked);

function sayMet({ posts, replies }: RequirementsMet): string {
  const parts = [
    ...(posts.asked > 0 ? [`${Math.min(posts.done, posts.asked)} of ${counted(posts.asked, 'post')}`] : []),
    ...(replies.asked > 0
      ? [`${Math.min(replies.done, replies.asked)} of ${counted(replies.asked, 'reply', 'replies')}`]
      : []),
  ];
  return `${parts.join(' and ')}, with the words and on time`;
}
