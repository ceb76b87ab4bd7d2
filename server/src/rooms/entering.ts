import type { EntityManager } from 'typeorm';
import type { Act, Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { GroupId } from '@jigsaw/core/ids';
import type { Viewers } from '../course/index.js';
import { refuseUnless } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { groupTags, setOf } from '../sets/index.js';

/** Someone at a group's room: a member, or staff who may look into it.
 * @throws not-found for anyone else, as for a group that is not there. */
export async function enterRoom(
  manager: EntityManager,
  viewers: Viewers,
  person: SignedIn,
  groupId: GroupId,
): Promise<Viewer> {
  const tag = (await groupTags(manager, [groupId])).get(groupId);
  if (!tag) throw problems.notFound();
  const viewer = await viewers.enter(person, (await setOf(manager, tag.setId)).courseId);
  const isTheirs = may(viewer.role, 'read-course')
    ? !viewer.seesOnlyLed || viewer.leads.includes(groupId)
    : viewer.groups.some((group) => group.groupId === groupId);
  if (!isTheirs) throw problems.notFound();
  return viewer;
}

/** Someone of the staff at a group's room.
 * @param act what they are to be allowed to.
 * @throws not-found for a group that is not theirs to look into, too. */
export async function staffOfRoom(
  manager: EntityManager,
  viewers: Viewers,
  person: SignedIn,
  groupId: GroupId,
  act: Act,
): Promise<Viewer> {
  const viewer = await enterRoom(manager, viewers, person, groupId);
  refuseUnless(viewer, act);
  return viewer;
}
