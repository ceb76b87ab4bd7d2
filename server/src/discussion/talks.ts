import { Injectable } from '@nestjs/common';
import type { DiscussionSettings } from '@jigsaw/contract/discussion';
import { assert } from '@jigsaw/core/ids';
import type { CopyAccess } from '../release/index.js';
import { Kinds } from '../release/index.js';

/** The requirement of a talk, and who may write in it. */
type TalkRule = DiscussionSettings & { readonly isSilent?: boolean };
type RuleOf = (settings: unknown) => TalkRule;

/** The kinds of activity that people talk in, each with the rule of its talk. */
@Injectable()
export class Talks {
  private readonly ruleOfKind = new Map<string, RuleOf>();

  constructor(private readonly kinds: Kinds) {}

  register(kind: string, ruleOf: RuleOf): void {
    this.ruleOfKind.set(kind, ruleOf);
  }

  isIn({ activity }: Pick<CopyAccess, 'activity'>): boolean {
    return this.ruleOfKind.has(activity.kind);
  }

  ruleOf({ activity }: Pick<CopyAccess, 'activity'>): TalkRule {
    const ruleOf = this.ruleOfKind.get(activity.kind);
    assert(ruleOf, `people talk in a ${activity.kind}`);
    return ruleOf(this.kinds.settingsOf(activity));
  }
}

/** What was written in talks, as news. */
export const postsSql = (copies: string): string =>
  `SELECT "copyId", "id" AS "subjectId", "version", "authorId", NULL::uuid AS "ownerId", COALESCE("editedAt", "createdAt") AS "at", left("plain", 200) AS "excerpt"
     FROM "post" WHERE "copyId" = ANY(${copies}) AND "deletedAt" IS NULL`;
