import { Injectable } from '@nestjs/common';
import type { z } from 'zod';
import { AssignmentSettings, FolderSettings } from '@jigsaw/contract/handin';
import type { Progress } from '@jigsaw/contract/release';
import type { HandInRules } from '@jigsaw/core/handin';
import { assignmentFacts, folderFacts } from '@jigsaw/core/handin';
import type { EnrolmentId, CopyId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import type { KindFacts } from '@jigsaw/core/release';
import { whoseFigures } from '@jigsaw/core/release';
import type { ActivityKind, Asked, CopyAccess, Evidence, UnitWork } from '../release/index.js';
import { Kinds, lateOf, onTime } from '../release/index.js';
import type { OwnWork } from './work.js';
import { workKey, workState, WorkReader } from './work.js';

/** What is common to all kinds that are handed in; they differ only in what they take and from each student or each group. */
class HandInKind<Settings> implements ActivityKind<Settings> {
  readonly name: string;
  readonly modes: KindFacts<Settings>['modes'];
  readonly markFor: KindFacts<Settings>['markFor'];
  readonly isHandedIn: boolean;
  readonly isWork: boolean;
  readonly isMarked: boolean;

  constructor(
    private readonly facts: KindFacts<Settings> & { readonly rulesOf: (settings: Settings) => HandInRules },
    readonly settings: z.ZodType<Settings>,
    private readonly kinds: Kinds,
    private readonly work: WorkReader,
  ) {
    this.name = facts.name;
    this.modes = facts.modes;
    this.markFor = facts.markFor;
    this.isHandedIn = facts.isHandedIn;
    this.isWork = facts.isWork;
    this.isMarked = facts.isMarked;
  }

  rulesFor({ activity }: CopyAccess): HandInRules {
    return this.facts.rulesOf(this.kinds.settingsOf(activity) as Settings);
  }

  itemsSql(copies: string): string {
    return `SELECT "copyId", "id" AS "subjectId", 1 AS "version", "handedInBy" AS "authorId", "ownerId", "handedInAt" AS "at",
                   'Handed in, no. ' || "attempt" AS "excerpt" FROM "hand_in" WHERE "copyId" = ANY(${copies})`;
  }

  async progress({ accesses, manager, membersOf }: Asked): Promise<Map<string, Progress>> {
    const works = keyedBy(await this.work.own(accesses, manager), workKey);
    const workOf = (copyId: CopyId, ownerId: EnrolmentId | null) => works.get(workKey({ copyId, ownerId }));
    return new Map(
      accesses.map((access) => {
        const { copy, viewer, decision } = access;
        const isEach = this.rulesFor(access).by === 'student';
        const ownerId = isEach ? (decision.part === 'member' ? viewer.enrolmentId : undefined) : null;
        if (ownerId === undefined && whoseFigures('what-each-did', decision.part, viewer.role) === 'none')
          return [copy.id, untold];
        if (ownerId === undefined)
          return [copy.id, allTogether(membersOf(copy.id), (id) => workOf(copy.id, id))];
        const own = workOf(copy.id, ownerId);
        const at = own?.handIn?.handedInAt ?? null;
        return [
          copy.id,
          {
            state: workState(at, own?.changedAt ?? null),
            isYours: isEach,
            owes: decision.access === 'open' && decision.part === 'member' && at === null,
            at: at?.toISOString() ?? null,
            late: at && lateOf(access, at, ownerId ?? viewer.enrolmentId),
            done: null,
            asked: null,
          },
        ];
      }),
    );
  }

  async works({ accesses, manager, membersOf }: Asked): Promise<UnitWork[]> {
    const works = await this.work.latest(accesses, manager);
    const ofCopy = groupedBy(works, (work) => work.copyId);
    return accesses.flatMap((access) => {
      const own = ofCopy.get(access.copy.id) ?? [];
      const ofOwner = keyedBy(own, (work) => work.ownerId);
      const members = membersOf(access.copy.id);
      if (this.rulesFor(access).by === 'group')
        return [unitWork(access, 'group', ofOwner.get(null), members)];
      const owners = own.flatMap((work) => (work.ownerId !== null && work.handIn ? [work.ownerId] : []));
      return [...new Set([...members, ...owners])].map((id) => unitWork(access, id, ofOwner.get(id), [id]));
    });
  }

  async evidence({ accesses, manager }: Asked): Promise<Map<string, Map<string, Evidence[]>>> {
    const rows = await manager.query<
      { copyId: CopyId; enrolmentId: EnrolmentId; words: number; files: number }[]
    >(
      `SELECT "copyId", "enrolmentId", sum("words")::int AS "words", sum("files")::int AS "files" FROM (
         SELECT "copyId", "enrolmentId", "words", 0 AS "files" FROM "part"
         UNION ALL SELECT "copyId", "addedBy", 0, 1 FROM "work_file" WHERE "deletedAt" IS NULL) work
        WHERE "copyId" = ANY($1) GROUP BY 1, 2`,
      [accesses.map((access) => access.copy.id)],
    );
    const ofCopy = groupedBy(rows, (row) => row.copyId);
    return new Map(
      accesses.map((access) => {
        const { takesText } = this.rulesFor(access);
        const own = ofCopy.get(access.copy.id) ?? [];
        const figures = ({ words, files }: { words: number; files: number }): Evidence[] => [
          ...(takesText ? [{ label: 'words', value: String(words) }] : []),
          { label: 'files', value: String(files) },
        ];
        return [access.copy.id, new Map(own.map((row) => [row.enrolmentId, figures(row)]))];
      }),
    );
  }
}

function unitWork(
  access: CopyAccess,
  unit: UnitWork['unit'],
  own: OwnWork | undefined,
  members: readonly EnrolmentId[],
): UnitWork {
  const handIn = own?.handIn ?? null;
  return {
    copyId: access.copy.id,
    unit,
    latest: handIn && { at: handIn.handedInAt, by: handIn.by },
    isComplete: handIn !== null,
    late: handIn ? lateOf(access, handIn.handedInAt, unit === 'group' ? null : unit) : onTime,
    ...(unit === 'group' && handIn && access.ownTime.size > 0
      ? {
          ownLate: new Map(
            handIn.credited
              .filter((id) => access.ownTime.has(id))
              .map((id) => [id, lateOf(access, handIn.handedInAt, id)]),
          ),
        }
      : {}),
    // Nothing handed in: a mark, if one is given, goes to anyone who is in the group.
    credited: handIn ? handIn.credited : members,
    suggestion: null,
  };
}

/** Where each hands in for themselves, anyone who reads along learns nothing of them. */
const untold: Progress = {
  state: 'not-started',
  isYours: false,
  owes: false,
  at: null,
  late: null,
  done: null,
  asked: null,
};

/** For staff, where each student hands in: how many have. */
function allTogether(
  members: readonly EnrolmentId[],
  workOf: (id: EnrolmentId) => OwnWork | undefined,
): Progress {
  const handedIn = members.flatMap((id) => workOf(id)?.handIn?.handedInAt ?? []);
  const hasBegun = members.some((id) => workOf(id) !== undefined);
  return {
    state:
      members.length > 0 && handedIn.length === members.length
        ? 'done'
        : hasBegun
          ? 'in-work'
          : 'not-started',
    isYours: false,
    owes: false,
    at: handedIn.length === 0 ? null : new Date(Math.max(...handedIn.map(Number))).toISOString(),
    late: null,
    done: handedIn.length,
    asked: members.length,
  };
}

/** The two kinds that are handed in, registered. */
@Injectable()
export class HandInKinds {
  private readonly own: ReadonlyMap<string, (access: CopyAccess) => HandInRules>;

  constructor(kinds: Kinds, work: WorkReader) {
    const assignment = new HandInKind(assignmentFacts, AssignmentSettings, kinds, work);
    const folder = new HandInKind(folderFacts, FolderSettings, kinds, work);
    kinds.register(assignment);
    kinds.register(folder);
    this.own = new Map([
      [assignment.name, (access: CopyAccess) => assignment.rulesFor(access)],
      [folder.name, (access: CopyAccess) => folder.rulesFor(access)],
    ]);
  }

  /** null: this copy is of a kind that is not handed in. */
  rulesFor(access: CopyAccess): HandInRules | null {
    return this.own.get(access.activity.kind)?.(access) ?? null;
  }
}
