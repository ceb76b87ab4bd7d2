import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type {
  AudienceDraft,
  AudienceList,
  AudienceMembers,
  AudienceTerms,
  AudienceView,
  EditAudience,
  WhoIsIn,
} from '@jigsaw/contract/audiences';
import type { Done } from '@jigsaw/contract/common';
import type { SavedAudience, Term, Terms } from '@jigsaw/core/audiences';
import { audiencesIn, circleOf, usersOf } from '@jigsaw/core/audiences';
import type { AudienceId, CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { fold, namesTogether } from '@jigsaw/core/text';
import { areEnrolled, lockCourse, peopleOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { areGroupsOfSet, groupsOfSets, setOfCourse } from '../sets/index.js';
import { AudienceHearers } from './audienceHearers.js';
import { SavedAudienceRow } from './audiences.rows.js';
import { audiencesNow } from './audiencesNow.js';
import type { AudiencesNow } from './audiencesNow.js';

/** Named combinations of people, for whatever goes to people. */
@Injectable()
export class AudiencesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly hearers: AudienceHearers,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<AudienceList> {
    await this.viewers.staff(person, courseId, 'read-course');
    return { audiences: await this.views(this.dataSource.manager, courseId) };
  }

  /** Who would be in an audience with these terms, and by which line; changes nothing. */
  async whoIsIn(
    person: SignedIn,
    courseId: CourseId,
    { audienceId, ...terms }: WhoIsIn,
  ): Promise<AudienceMembers> {
    const { manager } = this.dataSource;
    await this.viewers.staff(person, courseId, 'read-course');
    const now = await audiencesNow(manager, courseId);
    const everyone = await peopleOf(manager, courseId);
    const { people, removed, groups } = now.resolve(terms);
    const named = await groupsOfSets(manager, [...new Set(groups.values())]);
    const membersBy = (found: ReadonlyMap<EnrolmentId, Term>) =>
      everyone.flatMap(({ enrolmentId, name, reading, role }) => {
        const by = found.get(enrolmentId);
        return by ? [{ enrolmentId, name, reading, role, by }] : [];
      });
    const circle = audienceId === null ? null : circleOf(audienceId, terms, savedOf(now));
    const nameOf = new Map(now.rows.map((row) => [row.id, row.name]));
    return {
      people: membersBy(people),
      removed: membersBy(removed),
      groups: named.flatMap(({ id, number, name }) =>
        groups.has(id) ? [{ groupId: id, number, name }] : [],
      ),
      circle: circle && circle.map((id) => nameOf.get(id) ?? 'an audience that was deleted'),
    };
  }

  async create(person: SignedIn, courseId: CourseId, draft: AudienceDraft): Promise<AudienceView> {
    await this.viewers.staff(person, courseId, 'release');
    const id = newId<'audience'>();
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      await lockCourse(manager, courseId);
      const { rows } = await audiencesNow(manager, courseId);
      refuseName(rows, draft.name, null);
      await refuseTerms(manager, courseId, draft, rows, null);
      await manager.insert(SavedAudienceRow, {
        id,
        courseId,
        name: draft.name,
        terms: termsOf(draft),
        createdAt: now,
      });
      return this.recorded(work, person, courseId, id);
    });
  }

  /** @throws conflict that names the way, where it would come to contain itself. */
  async edit(person: SignedIn, id: AudienceId, { version, ...draft }: EditAudience): Promise<AudienceView> {
    const { courseId } = await this.found(id);
    const { enrolmentId } = await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      const { manager } = work;
      // Two who let two audiences name each other take turns.
      await lockCourse(manager, courseId);
      const before = await audiencesNow(manager, courseId);
      const row = before.rows.find((each) => each.id === id);
      if (!row) throw problems.notFound();
      if (row.version !== version)
        throw problems.staleWrite(
          sure((await this.views(manager, courseId)).find((each) => each.id === id)),
          'This audience was changed meanwhile. Nothing was saved; what you wrote is kept here.',
        );
      refuseName(before.rows, draft.name, id);
      await refuseTerms(manager, courseId, draft, before.rows, row);
      const circle = circleOf(id, draft, savedOf(before));
      if (circle) {
        const nameOf = new Map(before.rows.map((each) => [each.id, each.name]));
        throw problems.conflict(
          `“${draft.name}” would contain itself: ${circle.map((each) => (each === id ? draft.name : nameOf.get(each))).join(' → ')}. Remove one of these lines.`,
        );
      }
      await manager.update(SavedAudienceRow, id, {
        name: draft.name,
        terms: termsOf(draft),
        version: version + 1,
      });
      const ids = new Set([id, ...usersOf(id, savedOf(before))]);
      await this.hearers.changed({ work, courseId, ids, before, person, by: enrolmentId });
      return this.recorded(work, person, courseId, id);
    });
  }

  async remove(person: SignedIn, id: AudienceId): Promise<Done> {
    const { courseId, name } = await this.found(id);
    await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      await lockCourse(work.manager, courseId);
      const view = (await this.views(work.manager, courseId)).find((each) => each.id === id);
      if (view && view.usedIn.length > 0)
        throw problems.conflict(
          `“${name}” is used by ${namesTogether(view.usedIn)}. Choose someone else there before you delete it.`,
        );
      await work.manager.update(SavedAudienceRow, id, { deletedAt: work.now });
      await record(work, person, courseId, id);
      return { done: true };
    });
  }

  /** As it was; undo of deleting it. */
  async restore(person: SignedIn, id: AudienceId): Promise<AudienceView> {
    const { courseId, name } = await this.found(id, { isDeleted: true });
    await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      await lockCourse(work.manager, courseId);
      refuseName((await audiencesNow(work.manager, courseId)).rows, name, id);
      await work.manager.update(SavedAudienceRow, id, { deletedAt: null });
      return this.recorded(work, person, courseId, id);
    });
  }

  private async recorded(
    work: Work,
    person: SignedIn,
    courseId: CourseId,
    id: AudienceId,
  ): Promise<AudienceView> {
    await record(work, person, courseId, id);
    return sure((await this.views(work.manager, courseId)).find((each) => each.id === id));
  }

  private async found(id: AudienceId, { isDeleted = false } = {}): Promise<SavedAudienceRow> {
    const row = await this.dataSource.manager.findOneBy(SavedAudienceRow, { id });
    if (!row || (row.deletedAt !== null) !== isDeleted) throw problems.notFound();
    return row;
  }

  private async views(manager: EntityManager, courseId: CourseId): Promise<AudienceView[]> {
    const { rows, saved } = await audiencesNow(manager, courseId);
    const usesOf = await this.hearers.usesOf(manager, courseId);
    return rows.map(({ id, name, terms, version }) => {
      const { people, groups } = saved(id);
      const users = rows.filter((row) => audiencesIn(row.terms).includes(id));
      return {
        id,
        name,
        version,
        ...terms,
        people: people.size,
        groups: groups.size,
        usedIn: [...usesOf(id), ...users.map((user) => user.name)],
      };
    });
  }
}

function refuseName(rows: readonly SavedAudienceRow[], name: string, own: AudienceId | null): void {
  if (rows.some((row) => row.id !== own && fold(row.name) === fold(name)))
    throw problems.conflict(`There is an audience called “${name}” already. Choose another name.`);
}

/** Everything that is newly named is of this course; what was named before may have gone meanwhile.
 * @param rows the audiences of the course.
 * @throws not-found, as for what never was. */
async function refuseTerms(
  manager: EntityManager,
  courseId: CourseId,
  { include, exclude }: Terms,
  rows: readonly SavedAudienceRow[],
  before: SavedAudienceRow | null,
): Promise<void> {
  const known = new Set(
    before ? [...before.terms.include, ...before.terms.exclude].map((term) => JSON.stringify(term)) : [],
  );
  const added = [...include, ...exclude].filter((term) => !known.has(JSON.stringify(term)));
  const audiences = new Set(rows.map((row) => row.id));
  const people: EnrolmentId[] = [];
  for (const term of added) {
    if (term.kind === 'person') people.push(term.enrolmentId);
    if (term.kind === 'audience' && !audiences.has(term.audienceId)) throw problems.notFound();
    if (term.kind === 'set' || term.kind === 'group') await setOfCourse(manager, term.setId, courseId);
    if (term.kind === 'group' && !(await areGroupsOfSet(manager, [term.groupId], term.setId)))
      throw problems.notFound();
  }
  if (!(await areEnrolled(manager, courseId, people))) throw problems.notFound();
}

/** A line that is there twice says nothing more. */
const once = (terms: readonly Term[]): Term[] => [
  ...new Map(terms.map((term) => [JSON.stringify(term), term])).values(),
];
const termsOf = ({ include, exclude }: AudienceTerms): Terms => ({
  include: once(include),
  exclude: once(exclude),
});
const savedOf = ({ rows }: AudiencesNow): SavedAudience[] => rows.map(({ id, terms }) => ({ id, ...terms }));

const record = (work: Work, person: SignedIn, courseId: CourseId, id: AudienceId): Promise<void> =>
  work.record({ type: 'audience.changed', courseId, actorId: person.id, subjectId: id, facts: {} });
