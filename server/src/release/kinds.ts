import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { z } from 'zod';
import type { Happening, Lateness, Progress } from '@jigsaw/contract/release';
import type { CopyId, EnrolmentId, GroupId, PostId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { lateness } from '@jigsaw/core/handin';
import type { KindFacts, ReleaseMode } from '@jigsaw/core/release';
import { problems } from '../platform/problems.js';
import { datesOf } from './dates.js';
import type { CopyAccess } from './gate.js';
import type { ActivityRow, CopyRow } from './release.rows.js';

/** What gets one mark: the group, or one student. */
export type Unit = 'group' | EnrolmentId;

/** How the work of one unit stands, as far as marking it goes. */
export interface UnitWork {
  readonly copyId: CopyId;
  readonly unit: Unit;
  /** The newest work and whose it is; null: there is none yet. */
  readonly latest: { readonly at: Date; readonly by: string } | null;
  /** Ready to be marked: handed in, or what was asked is done or its time is over. */
  readonly isComplete: boolean;
  readonly late: Lateness;
  /** How late it is for those of a group who have time of their own. */
  readonly ownLate?: ReadonlyMap<EnrolmentId, Lateness>;
  /** Who gets the mark. */
  readonly credited: readonly EnrolmentId[];
  readonly suggestion: { readonly mark: string; readonly why: string } | null;
}

/** One figure of what a member did: "posts", "3". Shown beside marks, never made into one. */
export interface Evidence {
  readonly label: string;
  readonly value: string;
}

/** What a kind is asked with: the proofs of entry, and whose work each copy is now. */
export interface Asked {
  readonly accesses: readonly CopyAccess[];
  readonly manager: EntityManager;
  readonly now: Date;
  readonly membersOf: (copyId: CopyId) => readonly EnrolmentId[];
}

/** What members of a copy asked and no one answered. */
export interface OpenQuestions {
  readonly count: number;
  /** The one that has waited longest, in the words of its first sentence that asks, and who wrote it. */
  readonly postId: PostId;
  readonly by: string;
  readonly excerpt: string;
  readonly since: Date;
  /** When the last of them was asked. */
  readonly newest: Date;
}

/** What a copy begins with. */
export interface Opening<Settings> {
  readonly copies: readonly CopyRow[];
  readonly settings: Settings;
  readonly manager: EntityManager;
  readonly now: Date;
  /** The person who released it. */
  readonly by: EnrolmentId;
}

/** All that the rest of the server knows of a kind of activity. Composer, rooms, unread counts, desk and gradebook work from this alone. */
export interface ActivityKind<Settings = unknown> extends KindFacts<Settings> {
  /** Settings from nothing are its defaults. */
  readonly settings: z.ZodType<Settings>;
  /** What can be new to someone: a query of one row an item over the copies in the given array parameter, with "copyId", "subjectId",
   * "version" (an edit counts up), "authorId", "at", "excerpt", and "ownerId" where only one student and staff may know of it. */
  itemsSql(copies: string): string;
  begin?(opening: Opening<Settings>): Promise<void>;
  /** Takes back what they began with, of copies that no one was ever in; what was added since stays, and keeps the copy. */
  end?(manager: EntityManager, copyIds: readonly CopyId[]): Promise<void>;
  /** When and where it takes place, for kinds that do. */
  happens?(settings: Settings): Happening | null;
  /** Where groups can have something of their own in the settings: all that one group has, with nothing that is another's; null: the one copy
   * for all, and a course that has none of these groups. */
  forGroup?(settings: Settings, groupId: GroupId | null): Settings;
  /** The groups that have something of their own in the settings. */
  groupsWithOwn?(settings: Settings): readonly GroupId[];
  /** The settings with every moment in them moved. */
  moved?(settings: Settings, later: (at: string) => string): Settings;
  /** Why what is with groups cannot be changed like this, as a sentence; null: it can. */
  whyNotChanged?(change: {
    readonly manager: EntityManager;
    readonly copyIds: readonly CopyId[];
    readonly before: Settings;
    readonly after: Settings;
  }): Promise<string | null>;
  /** How far the asker is in each copy; for staff, how far its members are. By copy. */
  progress(asked: Asked): Promise<ReadonlyMap<string, Progress>>;
  /** For each copy one for the group, or one for each student, as `unitOf` says. */
  works(asked: Asked): Promise<readonly UnitWork[]>;
  /** By copy; for kinds in which people talk. */
  openQuestions?(
    manager: EntityManager,
    copyIds: readonly CopyId[],
  ): Promise<ReadonlyMap<CopyId, OpenQuestions>>;
  /** By copy, by member. */
  evidence(asked: Asked): Promise<ReadonlyMap<string, ReadonlyMap<string, readonly Evidence[]>>>;
}

/** Whether something hangs on one of these copies. */
type Trace = (manager: EntityManager, copyIds: readonly CopyId[]) => Promise<boolean>;
type Traced = 'work' | 'mark';

/** The kinds of activity that there are. A kind registers itself when its module starts. */
@Injectable()
export class Kinds {
  private readonly kinds = new Map<string, ActivityKind>();
  private readonly traces: { readonly of: Traced; readonly isThere: Trace }[] = [];
  private readonly parsed = new WeakMap<ActivityRow, unknown>();

  register<Settings>(kind: ActivityKind<Settings>): void {
    assert(!this.kinds.has(kind.name), `the kind ${kind.name} is registered once`);
    this.kinds.set(kind.name, kind as ActivityKind);
  }

  /** Areas above say what may hang on a copy. */
  addTrace(of: Traced, isThere: Trace): void {
    this.traces.push({ of, isThere });
  }

  async hasTraces(
    manager: EntityManager,
    copyIds: readonly CopyId[],
    of: readonly Traced[] = ['work', 'mark'],
  ): Promise<boolean> {
    for (const trace of this.traces)
      if (of.includes(trace.of) && (await trace.isThere(manager, copyIds))) return true;
    return false;
  }

  get all(): readonly ActivityKind[] {
    return [...this.kinds.values()];
  }

  of(activity: Pick<ActivityRow, 'kind'>): ActivityKind {
    const kind = this.kinds.get(activity.kind);
    assert(kind, `the kind ${activity.kind} is registered`);
    return kind;
  }

  /** @throws invalid-input naming what is wrong, for settings that someone typed. */
  check(kindName: string, settings: unknown): Record<string, unknown> {
    const kind = this.kinds.get(kindName);
    if (!kind)
      throw problems.invalidInput('There is no such kind of activity.', {
        issues: [{ path: 'kind', message: 'Choose a kind from the list.' }],
      });
    const parsed = kind.settings.safeParse(settings);
    if (parsed.success) return parsed.data as Record<string, unknown>;
    const issues = parsed.error.issues.map((issue) => ({
      path: `settings.${issue.path.join('.')}`,
      message: issue.message,
    }));
    throw problems.invalidInput(issues[0]?.message, { issues });
  }

  /** @throws invalid-input saying what is missing before groups can have it. */
  refuseUnready(content: Pick<ActivityRow, 'kind'> & { readonly settings: unknown }): void {
    const kind = this.of(content);
    const why = kind.notReady?.(kind.settings.parse(content.settings)) ?? null;
    if (why !== null) throw problems.invalidInput(why);
  }

  /** Settings as the kind reads them; rows of before a setting existed have its default. */
  settingsOf(activity: ActivityRow): unknown {
    if (!this.parsed.has(activity))
      this.parsed.set(activity, this.of(activity).settings.parse(activity.settings));
    return this.parsed.get(activity);
  }

  /** All that one group has of them, with nothing that is another's. */
  settingsFor(activity: ActivityRow, groupId: GroupId | null): unknown {
    const settings = this.settingsOf(activity);
    return this.of(activity).forGroup?.(settings, groupId) ?? settings;
  }

  /** When and where it takes place for one group; null: at no time of its own. */
  happensOf(activity: ActivityRow, groupId: GroupId | null): Happening | null {
    return this.of(activity).happens?.(this.settingsFor(activity, groupId)) ?? null;
  }

  groupsWithOwn(activity: ActivityRow): readonly GroupId[] {
    return this.of(activity).groupsWithOwn?.(this.settingsOf(activity)) ?? [];
  }

  modesOf(activity: ActivityRow): readonly ReleaseMode[] {
    return this.of(activity).modes(this.settingsOf(activity));
  }

  /** A copy for all has no group to mark: there each student has a mark. */
  markFor({ activity, release }: Pick<CopyAccess, 'activity' | 'release'>): 'group' | 'student' {
    return release.mode === 'common' ? 'student' : this.of(activity).markFor(this.settingsOf(activity));
  }

  /** Asks each kind about its own copies and puts the answers together. */
  async ask<Answer>(
    asked: Asked,
    question: (kind: ActivityKind, own: Asked) => Promise<Answer>,
  ): Promise<Answer[]> {
    const answers: Answer[] = [];
    for (const kind of this.kinds.values()) {
      const own = asked.accesses.filter((access) => access.activity.kind === kind.name);
      if (own.length > 0) answers.push(await question(kind, { ...asked, accesses: own }));
    }
    return answers;
  }

  async progress(asked: Asked): Promise<Map<string, Progress>> {
    return new Map((await this.ask(asked, (kind, own) => kind.progress(own))).flatMap((each) => [...each]));
  }

  async works(asked: Asked): Promise<UnitWork[]> {
    return (await this.ask(asked, (kind, own) => kind.works(own))).flat();
  }

  async openQuestions(
    accesses: readonly CopyAccess[],
    manager: EntityManager,
  ): Promise<ReadonlyMap<CopyId, OpenQuestions>> {
    const found: (readonly [CopyId, OpenQuestions])[] = [];
    for (const [kind, own] of groupedBy(accesses, ({ activity }) => activity.kind))
      found.push(...((await this.of({ kind }).openQuestions?.(manager, own.map(({ copy }) => copy.id))) ?? [])); // prettier-ignore
    return new Map(found);
  }

  async evidence(asked: Asked): Promise<Map<string, ReadonlyMap<string, readonly Evidence[]>>> {
    return new Map((await this.ask(asked, (kind, own) => kind.evidence(own))).flatMap((each) => [...each]));
  }
}

/** How late something is in one copy.
 * @param whose by this student's own date; null: by the group's. */
export function lateOf(
  access: Pick<CopyAccess, 'activity' | 'schedule' | 'extension' | 'ownTime'>,
  at: Date,
  whose: EnrolmentId | null,
): Lateness {
  const { latePolicy, points } = access.activity;
  const { minutes, deduction } = lateness(
    at.getTime(),
    datesOf(access, whose).due,
    latePolicy,
    points ?? '0',
  );
  return { minutes, deduction };
}

export const onTime: Lateness = { minutes: 0, deduction: '0' };
