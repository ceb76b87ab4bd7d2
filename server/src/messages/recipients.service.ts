import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { RecipientChoice, Recipients } from '@jigsaw/contract/messages';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { unreachable } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import type { Filled } from '@jigsaw/core/messages';
import { audiencesNow } from '../audiences/index.js';
import { peopleOf } from '../course/index.js';
import { problems } from '../platform/problems.js';

/** One that gets a message: someone alone, or a group. */
export type Addressed = Filled &
  (
    | { readonly withId: EnrolmentId; readonly groupId: null }
    | { readonly withId: null; readonly groupId: GroupId }
  );

interface GroupNow extends GroupTag {
  readonly isArchived: boolean;
  /** Of those who are in it. */
  readonly names: readonly string[];
}

/** Who a message goes to, as it is now. */
@Injectable()
export class RecipientsService {
  /** @throws not-found for people, groups, sets and audiences that are not the writer's to write to. */
  async resolve(manager: EntityManager, viewer: Viewer, to: Recipients): Promise<readonly Addressed[]> {
    const { courseId, enrolmentId, role } = viewer;
    if (to.kind === 'staff') {
      if (role !== 'student') throw problems.notFound();
      return [{ withId: enrolmentId, groupId: null, names: [], groups: [] }];
    }
    if (to.kind !== 'groups' && !may(role, 'write-to-people')) throw problems.notFound();
    switch (to.kind) {
      case 'groups':
        return addressedGroups(await groupsNow(manager, viewer), to.groupIds);
      case 'set': {
        const groups = (await groupsNow(manager, viewer)).filter(({ setId }) => setId === to.setId);
        if (groups.length === 0) throw problems.notFound();
        const seated = groups.filter(({ names }) => names.length > 0);
        return addressedGroups(seated, seated.map(({ id }) => id)); // prettier-ignore
      }
      case 'people': {
        const wanted = new Set(to.enrolmentIds);
        const people = await addressedPeople(manager, courseId, (person) => wanted.has(person.enrolmentId));
        if (people.length < wanted.size || wanted.has(enrolmentId)) throw problems.notFound();
        return people;
      }
      case 'audience': {
        const { rows, saved } = await audiencesNow(manager, courseId);
        if (!rows.some(({ id }) => id === to.audienceId)) throw problems.notFound();
        const { people } = saved(to.audienceId);
        return addressedPeople(manager, courseId, (each) => people.has(each.enrolmentId) && each.enrolmentId !== enrolmentId); // prettier-ignore
      }
      case 'class':
        return addressedPeople(manager, courseId, (person) => person.role === 'student');
      default:
        return unreachable(to);
    }
  }

  /** Who the writer may write to, and how many each reaches. */
  async choice(manager: EntityManager, viewer: Viewer): Promise<RecipientChoice> {
    const { courseId, enrolmentId, role } = viewer;
    const shown = (await groupsNow(manager, viewer)).filter(({ isArchived, names }) => !isArchived && names.length > 0); // prettier-ignore
    const sets = [...groupedBy(shown, ({ setId }) => setId)].map(([id, groups]) => ({
      id,
      name: sure(groups[0]).setName,
      groups: groups.map(tagOf),
    }));
    if (!may(role, 'write-to-people')) return { everyone: null, hasStaff: role === 'student', sets, audiences: [] }; // prettier-ignore
    const everyone = await peopleOf(manager, courseId);
    const { rows, saved } = await audiencesNow(manager, courseId);
    return {
      everyone: everyone.filter((person) => person.role === 'student').length,
      hasStaff: false,
      sets,
      audiences: rows.map(({ id, name }) => {
        const { people } = saved(id);
        return { id, name, people: people.size - (people.has(enrolmentId) ? 1 : 0) };
      }),
    };
  }
}

const tagOf = ({ id, setId, setName, number, name }: GroupNow): GroupTag => ({ id, setId, setName, number, name }); // prettier-ignore

/** The groups that someone may write to: all of the course, those they lead, or those they are in. */
async function groupsNow(manager: EntityManager, viewer: Viewer): Promise<readonly GroupNow[]> {
  const { courseId, role, seesOnlyLed, leads, groups } = viewer;
  const isStaff = may(role, 'write-to-people');
  const rows = await manager.query<GroupNow[]>(
    `SELECT g."groupId" AS "id", g."setId", g."setName", g."number", g."name", g."setArchivedAt" IS NOT NULL AS "isArchived",
            ARRAY(SELECT p."name" FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId"
                   WHERE s."groupId" = g."groupId" ORDER BY p."name", p."enrolmentId") AS "names"
       FROM "set_group" g WHERE g."courseId" = $1 ORDER BY g."setPosition", g."number"`,
    [courseId],
  );
  if (isStaff && !seesOnlyLed) return rows;
  const own = new Set(isStaff ? leads : groups.map(({ groupId }) => groupId));
  return rows.filter(({ id }) => own.has(id));
}

/** Each of these, as it was chosen; none where no one is in any of them. */
function addressedGroups(groups: readonly GroupNow[], wanted: readonly GroupId[]): readonly Addressed[] {
  const known = keyedBy(groups, ({ id }) => id);
  const chosen = [...new Set(wanted)].map((groupId) => {
    const group = known.get(groupId);
    if (!group) throw problems.notFound();
    return group;
  });
  if (chosen.every(({ names }) => names.length === 0)) return [];
  return chosen.map(({ id: groupId, names, name }) => ({ withId: null, groupId, names, groups: [name] }));
}

type PersonNow = Awaited<ReturnType<typeof peopleOf>>[number];
async function addressedPeople(
  manager: EntityManager,
  courseId: CourseId,
  isAddressed: (person: PersonNow) => boolean,
): Promise<readonly Addressed[]> {
  const people = (await peopleOf(manager, courseId)).filter(isAddressed);
  const seats = await manager.query<{ enrolmentId: EnrolmentId; groups: string[] }[]>(
    `SELECT s."enrolmentId", array_agg(g."name" ORDER BY g."setPosition", g."number") AS "groups"
       FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId"
      WHERE g."courseId" = $1 AND g."setArchivedAt" IS NULL GROUP BY 1`,
    [courseId],
  );
  const groupsOf = keyedBy(seats, (seat) => seat.enrolmentId);
  return people.map(({ enrolmentId, name }) => ({
    withId: enrolmentId,
    groupId: null,
    names: [name],
    groups: groupsOf.get(enrolmentId)?.groups ?? [],
  }));
}
