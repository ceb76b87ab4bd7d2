import { Injectable } from '@nestjs/common';
import { In, IsNull } from 'typeorm';
import { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { Progress } from '@jigsaw/contract/release';
import type { RequirementsMet } from '@jigsaw/core/discussion';
import { requirementsMet, suggestedMark } from '@jigsaw/core/discussion';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { discussionFacts } from '@jigsaw/core/discussion';
import { authorsById } from '../course/index.js';
import type { ActivityKind, Asked, CopyAccess, Evidence, UnitWork } from '../release/index.js';
import { Kinds, onTime, plainDecimal } from '../release/index.js';
import { PostRow } from './discussion.rows.js';
import { whoseFigures } from '@jigsaw/core/release';
import { counted } from '@jigsaw/core/text';

@Injectable()
export class DiscussionKind implements ActivityKind<DiscussionSettings> {
  readonly name = discussionFacts.name;
  readonly modes = discussionFacts.modes;
  readonly markFor = discussionFacts.markFor;
  readonly settings = DiscussionSettings;

  constructor(private readonly kinds: Kinds) {
    kinds.register(this);
  }

  settingsOf({ activity }: CopyAccess): DiscussionSettings {
    return this.kinds.settingsOf(activity) as DiscussionSettings;
  }

  itemsSql(copies: string): string {
    return `SELECT "copyId", "id" AS "subjectId", "version", "authorId", NULL::uuid AS "ownerId", COALESCE("editedAt", "createdAt") AS "at", left("plain", 200) AS "excerpt"
              FROM "post" WHERE "copyId" = ANY(${copies}) AND "takenOutAt" IS NULL`;
  }

  async progress(asked: Asked): Promise<Map<string, Progress>> {
    const posts = await this.posts(asked);
    return new Map(
      asked.accesses.map((access) => {
        const { copy, viewer, decision } = access;
        const here = posts.filter((post) => post.copyId === copy.id);
        const isMember = decision.part === 'member';
        const own = isMember ? here.filter((post) => post.authorId === viewer.enrolmentId) : here;
        const settings = this.settingsOf(access);
        const isCounted = whoseFigures('what-each-did', decision.part, viewer.role) !== 'none';
        const isAsking = isCounted && settings.posts + settings.replies > 0;
        const members = asked.membersOf(copy.id);
        const complete = (id: EnrolmentId) => this.met(access, here, id).isComplete;
        const mine = this.met(access, here, viewer.enrolmentId);
        const isDone =
          isAsking && (isMember ? mine.isComplete : members.length > 0 && members.every(complete));
        return [
          copy.id,
          {
            state: isDone ? 'done' : own.length > 0 ? 'in-work' : 'not-started',
            isYours: isMember,
            owes: isMember && decision.access === 'open' && isAsking && !isDone,
            at: latestOf(own)?.createdAt.toISOString() ?? null,
            late: null,
            done: !isAsking ? null : isMember ? doneOf(mine) : members.filter(complete).length,
            asked: !isAsking ? null : isMember ? settings.posts + settings.replies : members.length,
          },
        ];
      }),
    );
  }

  async works(asked: Asked): Promise<UnitWork[]> {
    const posts = await this.posts(asked);
    const name = await authorsById(
      asked.manager,
      posts.map((post) => post.authorId),
      '',
    );
    return asked.accesses.flatMap((access) => {
      const { copy, activity, schedule } = access;
      const members = asked.membersOf(copy.id);
      const here = posts.filter((post) => post.copyId === copy.id && members.includes(post.authorId));
      const isOver = schedule.due !== null && asked.now.getTime() > schedule.due;
      const one = (
        unit: UnitWork['unit'],
        own: readonly PostRow[],
        credited: readonly EnrolmentId[],
      ): UnitWork => {
        const latest = latestOf(own);
        const met = unit === 'group' ? null : this.met(access, here, unit);
        const suggested =
          met && activity.points !== null ? suggestedMark(plainDecimal(activity.points), met) : null;
        const isAsking = met?.met != null;
        return {
          copyId: copy.id,
          unit,
          latest: latest && { at: latest.editedAt ?? latest.createdAt, by: name(latest.authorId).name },
          // Where something is asked it is ready once done; otherwise when its time is over, or at once if it has none.
          isComplete:
            latest !== null &&
            ((isAsking && met.isComplete) || isOver || (!isAsking && schedule.due === null)),
          late: onTime,
          credited,
          suggestion: suggested === null || met === null ? null : { mark: suggested, why: sayMet(met) },
        };
      };
      if (this.kinds.markFor(access) === 'group') return [one('group', here, members)];
      return members.map((id) =>
        one(
          id,
          here.filter((post) => post.authorId === id),
          [id],
        ),
      );
    });
  }

  async evidence(asked: Asked): Promise<Map<string, Map<string, Evidence[]>>> {
    const posts = await this.posts(asked);
    return new Map(
      asked.accesses.map(({ copy }) => {
        const here = posts.filter((post) => post.copyId === copy.id);
        const authors = new Set([...here.map((post) => post.authorId), ...asked.membersOf(copy.id)]);
        const figures = (own: readonly PostRow[]): Evidence[] => [
          { label: 'posts', value: String(own.filter((post) => post.parentId === null).length) },
          { label: 'replies', value: String(own.filter((post) => post.parentId !== null).length) },
          { label: 'words', value: String(own.reduce((sum, post) => sum + post.words, 0)) },
        ];
        return [
          copy.id,
          new Map([...authors].map((id) => [id, figures(here.filter((post) => post.authorId === id))])),
        ];
      }),
    );
  }

  /** What one student has done of what is asked, from the posts of one copy. */
  met(access: CopyAccess, here: readonly PostRow[], enrolmentId: EnrolmentId): RequirementsMet {
    const own = here.filter((post) => post.authorId === enrolmentId);
    return requirementsMet(
      this.settingsOf(access),
      own.map((post) => ({
        isReply: post.parentId !== null,
        words: post.words,
        at: post.createdAt.getTime(),
      })),
      access.schedule.due,
    );
  }

  private posts({ accesses, manager }: Asked): Promise<PostRow[]> {
    const copyId = In(accesses.map((access) => access.copy.id));
    // Texts are not needed to count them.
    return manager.find(PostRow, {
      select: {
        id: true,
        copyId: true,
        parentId: true,
        authorId: true,
        words: true,
        createdAt: true,
        editedAt: true,
      },
      where: { copyId, takenOutAt: IsNull() },
    });
  }
}

function latestOf(posts: readonly PostRow[]): PostRow | null {
  const at = (post: PostRow) => (post.editedAt ?? post.createdAt).getTime();
  return posts.reduce<PostRow | null>(
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
