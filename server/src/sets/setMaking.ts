import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { GroupSetDraft, GroupSetView, SignUpSettings } from '@jigsaw/contract/sets';
import { noDetails } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { countStudents } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import type { CourseId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { namesFor, sizesByCount, sizesBySize } from '@jigsaw/core/sets';
import { groupRows } from './lookups.js';
import { GroupRow, GroupSetRow } from './sets.rows.js';
import { setView } from './setViews.js';

/** What is said of a set when it is made; all else begins as the table says. */
type NewSet = Pick<GroupSetRow, 'name' | 'pattern' | 'isExclusive'> &
  Partial<Omit<GroupSetRow, 'id' | 'courseId' | 'position' | 'createdAt' | 'version'>>;
type NewGroup = Pick<GroupRow, 'name'> &
  Partial<Pick<GroupRow, 'number' | 'motto' | 'capacity' | 'sourceId' | 'isLocked' | 'details' | 'topic'>>;

/** A set that was copied, and which of its groups stands for which. */
export interface CopiedSet {
  readonly set: GroupSetRow;
  readonly copyByGroup: ReadonlyMap<GroupId, GroupId>;
}

/** The one way in which sets and their groups are made, whatever asks for them. Everything takes the transaction that it is part of. */
@Injectable()
export class SetMaking {
  /** @throws invalid-input for a set that cannot be filled as it says. */
  async create(
    work: Work,
    person: SignedIn,
    courseId: CourseId,
    { shape, names, ...draft }: GroupSetDraft,
  ): Promise<GroupSetView> {
    const isFormedAtHandIn = shape.by === 'hand-in';
    refuseSignUp({ ...draft, isFormedAtHandIn });
    const { manager, record } = work;
    const students = await countStudents(manager, courseId);
    const set = await this.add(work, courseId, {
      ...draft,
      pattern: draft.pattern || 'Group {n}',
      isFormedAtHandIn,
    });
    const groups = await this.addGroups(
      work,
      set.id,
      namesFor(groupCount(shape, students), draft.pattern, names).map((name) => ({ name })),
    );
    await record({
      type: 'set.created',
      courseId,
      actorId: person.id,
      subjectId: set.id,
      facts: { groups: groups.length },
    });
    return setView(set, groups.length, students);
  }

  /** Groups, places and settings again, with no one in them. */
  async copy(work: Work, original: GroupSetRow, name: string): Promise<CopiedSet> {
    const { capacity, pattern, rules, isExclusive, hasLeaders, membersName } = original;
    const { isFormedAtHandIn, description, isDescriptionShown, latecomers, homeSetId, topics } = original;
    const set = await this.add(work, original.courseId, {
      name,
      capacity,
      pattern,
      rules,
      isExclusive,
      hasLeaders,
      membersName,
      isFormedAtHandIn,
      description,
      isDescriptionShown,
      latecomers,
      homeSetId,
      topics,
    });
    const groups = await groupRows(work.manager, original.id);
    const copies = await this.addGroups(
      work,
      set.id,
      groups.map(({ number, name: groupName, motto, capacity: places, details, topic }) => ({
        number,
        name: groupName,
        motto,
        capacity: places,
        details,
        topic,
      })),
    );
    return {
      set,
      copyByGroup: new Map(groups.map((group, at) => [group.id, sure(copies[at]).id])),
    };
  }

  /** A set at the end of the course's, without groups. */
  async add(
    { manager, now }: Pick<Work, 'manager' | 'now'>,
    courseId: CourseId,
    set: NewSet,
  ): Promise<GroupSetRow> {
    const id = newId<'group-set'>();
    const position = await manager.countBy(GroupSetRow, { courseId });
    await manager.insert(GroupSetRow, { ...set, id, courseId, position, createdAt: now });
    return manager.findOneByOrFail(GroupSetRow, { id });
  }

  /** Groups of a set, numbered on from those that it has unless they say their number. */
  async addGroups(
    { manager }: Pick<Work, 'manager'>,
    setId: GroupSetId,
    groups: readonly NewGroup[],
  ): Promise<GroupRow[]> {
    if (groups.length === 0) return [];
    const last = (await manager.maximum(GroupRow, 'number', { setId })) ?? 0;
    const rows = groups.map((group, at) => ({
      motto: '',
      details: noDetails,
      topic: null,
      capacity: null,
      sourceId: null,
      isLocked: false,
      number: last + at + 1,
      ...group,
      id: newId<'group'>(),
      setId,
      version: 1,
    }));
    await manager.insert(GroupRow, rows);
    return rows;
  }

  /** Remembers by which id the registrar knows groups that are its sections. */
  async identify(
    manager: EntityManager,
    groups: readonly { readonly id: GroupId; readonly sourceId: string | undefined }[],
  ): Promise<void> {
    await manager.query(
      `UPDATE "course_group" g SET "sourceId" = x."sourceId" FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "sourceId" text)
        WHERE g."id" = x."id" AND g."sourceId" IS DISTINCT FROM x."sourceId"`,
      [JSON.stringify(groups)],
    );
  }
}

interface Filling {
  readonly signUp: SignUpSettings | null;
  readonly isExclusive: boolean;
  readonly isFormedAtHandIn: boolean;
}

/** Students choose one place each, of groups that are there. */
export function refuseSignUp({ signUp, isExclusive, isFormedAtHandIn }: Filling): void {
  if (signUp && !isExclusive)
    throw problems.invalidInput(
      'Students choose one place each. Turn off several groups per student, or turn off sign-up.',
    );
  if (signUp && isFormedAtHandIn)
    throw problems.invalidInput('Students form these groups when they hand in, so there is no sign-up.');
}

function groupCount(shape: GroupSetDraft['shape'], students: number): number {
  if (shape.by === 'hand-in') return 0;
  const forecast =
    shape.by === 'count'
      ? sizesByCount(students, shape.groups)
      : sizesBySize(students, shape.size, shape.how);
  assert(forecast.ok, 'the contract lets only whole, positive shapes through');
  return forecast.sizes.length;
}
