import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { CourseId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { problems } from '../platform/problems.js';
import { GroupRow, GroupSetRow } from './sets.rows.js';

/** @throws not-found: who may know of it is the caller's to decide. */
export async function setOf(manager: EntityManager, setId: GroupSetId): Promise<GroupSetRow> {
  const set = await manager.findOneBy(GroupSetRow, { id: setId });
  if (!set) throw problems.notFound();
  return set;
}

/** @throws not-found for a set of another course, too. */
export async function setOfCourse(
  manager: EntityManager,
  setId: GroupSetId,
  courseId: CourseId,
): Promise<GroupSetRow> {
  const set = await manager.findOneBy(GroupSetRow, { id: setId, courseId });
  if (!set) throw problems.notFound();
  return set;
}

/** Acts on one set take turns from here to the end of the transaction. */
export const lockSet = (manager: EntityManager, setId: GroupSetId): Promise<GroupSetRow> =>
  manager.findOneOrFail(GroupSetRow, { where: { id: setId }, lock: { mode: 'pessimistic_write' } });

/** The sets of a course in their order, those that were archived too. */
export const setsOfCourse = (manager: EntityManager, courseId: CourseId): Promise<GroupSetRow[]> =>
  manager.find(GroupSetRow, { where: { courseId }, order: { position: 'ASC', createdAt: 'ASC' } });

/** The groups of these sets by their numbers. */
export const groupsOfSets = (manager: EntityManager, setIds: readonly GroupSetId[]): Promise<GroupRow[]> =>
  manager.find(GroupRow, { where: { setId: In([...setIds]) }, order: { number: 'ASC' } });

export const groupRows = (manager: EntityManager, setId: GroupSetId): Promise<GroupRow[]> =>
  groupsOfSets(manager, [setId]);

/** Whether all of these, each once, are groups of the set. */
export async function areGroupsOfSet(
  manager: EntityManager,
  groupIds: readonly GroupId[],
  setId: GroupSetId,
): Promise<boolean> {
  const ids = [...new Set(groupIds)];
  return (await manager.countBy(GroupRow, { id: In(ids), setId })) === ids.length;
}
