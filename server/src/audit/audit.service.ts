import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { AuditChoice, AuditFilter, AuditLine, AuditTrail } from '@jigsaw/contract/audit';
import type { GroupTag } from '@jigsaw/contract/sets';
import { kindOfAct, placesOf, sayAct, typesOfKind } from '@jigsaw/core/audit';
import type { Viewer } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, PersonId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { authorsById, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { eventsOfCourse } from '../platform/events.js';
import type { CourseEvent, EventsAbout } from '../platform/events.js';
import { idsOfActivity, subjectsOfReleases, titlesOfActivities } from '../release/index.js';
import type { SubjectOfRelease } from '../release/index.js';
import { groupTags } from '../sets/index.js';

/** Read for one answer; several in a row become one line. */
const eventsRead = 200;
const mostReads = 50;
const mostInFile = 20_000;
const togetherMs = 3_600_000;

/** Who did what in a course, when, and where it is undone: the events that were written with each act, said in words. No text that someone typed is in them. */
@Injectable()
export class AuditService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
  ) {}

  async read(person: SignedIn, courseId: CourseId, filter: AuditFilter): Promise<AuditTrail> {
    const { manager } = this.dataSource;
    const viewer = await this.viewers.staff(person, courseId, 'read-audit');
    let before = filter.before ?? null;
    // What was practised is not told: an answer without a line says nothing, so the next events are read for it.
    for (let reads = 0; reads < mostReads; reads += 1) {
      const events = await this.events(manager, courseId, { ...filter, before: before ?? undefined }, eventsRead); // prettier-ignore
      const lines = together(await this.lines(manager, viewer, events));
      before = events.length === eventsRead ? (events.at(-1)?.id ?? null) : null;
      if (lines.length > 0 || before === null) return { lines, before };
    }
    return { lines: [], before };
  }

  /** Each act on a line of its own, the latest 20,000; times are in UTC. */
  async csv(person: SignedIn, courseId: CourseId, filter: AuditFilter): Promise<string> {
    const { manager } = this.dataSource;
    const viewer = await this.viewers.staff(person, courseId, 'read-audit');
    const events = await this.events(manager, courseId, filter, mostInFile);
    const lines = await this.lines(manager, viewer, events);
    const rows = lines.map(({ at, by, says, activity, group, people }) => [
      at,
      by?.name ?? '',
      says,
      activity?.title ?? '',
      group === null ? '' : `${group.name} (${group.setName})`,
      people.join(', '),
    ]);
    const header = ['Time (UTC)', 'Who', 'What', 'Activity', 'Group', 'Students'];
    return stringify([header, ...rows], { bom: true, escape_formulas: true, record_delimiter: '\r\n' });
  }

  /** What the trail can be narrowed to. */
  async choice(person: SignedIn, courseId: CourseId): Promise<AuditChoice> {
    const { manager } = this.dataSource;
    await this.viewers.staff(person, courseId, 'read-audit');
    const people = await this.viewers.everyone(manager, courseId);
    const groups = await manager.query<GroupTag[]>(
      `SELECT "groupId" AS "id", "setId", "setName", "number", "name" FROM "set_group" WHERE "courseId" = $1 ORDER BY "setPosition", "number"`,
      [courseId],
    );
    return {
      people: people.map(({ viewer, name }) => ({ id: viewer.enrolmentId, name })),
      groups,
      activities: await titlesOfActivities(manager, courseId),
    };
  }

  private async events(
    manager: EntityManager,
    courseId: CourseId,
    { kind, person, group, activity, before }: AuditFilter,
    most: number,
  ): Promise<CourseEvent[]> {
    const about: EventsAbout[] = [];
    if (person) about.push({ subjectIds: [], mentions: person, actorId: await personOf(manager, courseId, person) }); // prettier-ignore
    if (group) about.push({ subjectIds: await idsOfGroup(manager, courseId, group), mentions: group, actorId: null }); // prettier-ignore
    if (activity)
      about.push({ subjectIds: await idsOfActivity(manager, courseId, activity), mentions: activity, actorId: null }); // prettier-ignore
    const types = kind ? typesOfKind(kind) : null;
    return eventsOfCourse(manager, courseId, { types, about, before: before ?? null, most });
  }

  /** As many statements for any number of events. */
  private async lines(
    manager: EntityManager,
    viewer: Viewer,
    events: readonly CourseEvent[],
  ): Promise<AuditLine[]> {
    const { courseId } = viewer;
    const subjectIds = [...new Set(events.flatMap(({ subjectId }) => subjectId ?? []))];
    const subjects = keyedBy(
      await subjectsOfReleases(manager, courseId, subjectIds),
      (each) => each.subjectId,
    );
    const named = events.map((event) => namedIn(event, subjects.get(event.subjectId ?? '')));
    const groups = await groupTags(manager, named.map(({ groupId }) => groupId)); // prettier-ignore
    const doers = await enrolmentsOf(manager, courseId, events.flatMap(({ actorId }) => actorId ?? [])); // prettier-ignore
    const author = await authorsById(manager, [...doers.values(), ...named.flatMap(({ people }) => people)], viewer.enrolmentId); // prettier-ignore
    return events.flatMap((event, at): AuditLine[] => {
      const { groupId, people } = named[at] as Named;
      const subject = subjects.get(event.subjectId ?? '');
      const kind = kindOfAct(event.type);
      // What is of no copy that is here was practised.
      if (kind === null || (isInCopy(event.type) && !subject?.copyId)) return [];
      const doer = event.actorId === null ? undefined : doers.get(event.actorId);
      const group = groups.get(groupId ?? '') ?? null;
      const setId = group?.setId ?? (kind === 'groups' ? event.subjectId : null);
      return [
        {
          id: event.id,
          at: event.at.toISOString(),
          by: doer === undefined ? null : author(doer),
          kind,
          says: sayAct(event.type, event.facts),
          times: 1,
          activity: subject ? { id: subject.activityId, title: subject.title } : null,
          group,
          people: people.map((id) => author(id).name),
          way: placesOf(event.type, { activityId: subject?.activityId ?? null, copyId: subject?.copyId ?? null, groupId: group?.id ?? null, setId }),
        },
      ]; // prettier-ignore
    });
  }
}

interface Named {
  readonly groupId: string | null;
  readonly people: readonly EnrolmentId[];
}

const copyTypes = /^(?:handed-in|part\.|file\.|own-file\.|answers\.|post\.|page\.|call\.|mark\.)/;
const isInCopy = (type: string): boolean => copyTypes.test(type);

interface Moved {
  readonly student: EnrolmentId;
  readonly from: GroupId | null;
  readonly to: GroupId | null;
}
/** The group and the students that an event names. */
function namedIn({ facts }: CourseEvent, subject: SubjectOfRelease | undefined): Named {
  const moves = (facts['moves'] ?? []) as readonly Moved[];
  const groups = [...new Set(moves.flatMap(({ to, from }) => to ?? from ?? []))];
  const own = typeof facts['groupId'] === 'string' ? facts['groupId'] : null;
  const student = [facts['enrolmentId'], facts['unit']].find(
    (id) => typeof id === 'string' && id !== 'group',
  );
  return {
    groupId: subject?.groupId ?? own ?? (groups.length === 1 ? (groups[0] ?? null) : null),
    people: student ? [student as EnrolmentId] : [...new Set(moves.map((move) => move.student))],
  };
}

/** The same act on the same thing several times in a row, within an hour, is told once. */
function together(lines: readonly AuditLine[]): AuditLine[] {
  const told: AuditLine[] = [];
  for (const line of lines) {
    const last = told.at(-1);
    const isAgain =
      last !== undefined &&
      sameAct(last) === sameAct(line) &&
      Date.parse(last.at) - Date.parse(line.at) <= togetherMs;
    if (isAgain) told[told.length - 1] = { ...last, times: last.times + 1 };
    else told.push(line);
  }
  return told;
}
const sameAct = ({ by, kind, says, activity, group, people }: AuditLine): string =>
  JSON.stringify([by?.enrolmentId, kind, says.replace(/\d+/g, ''), activity?.id, group?.id, people]);

async function personOf(
  manager: EntityManager,
  courseId: CourseId,
  enrolmentId: EnrolmentId,
): Promise<PersonId | null> {
  const [row] = await manager.query<{ personId: PersonId }[]>(
    `SELECT "personId" FROM "course_person" WHERE "courseId" = $1 AND "enrolmentId" = $2`,
    [courseId, enrolmentId],
  );
  return row?.personId ?? null;
}

async function enrolmentsOf(
  manager: EntityManager,
  courseId: CourseId,
  personIds: readonly PersonId[],
): Promise<ReadonlyMap<PersonId, EnrolmentId>> {
  const rows = await manager.query<{ personId: PersonId; enrolmentId: EnrolmentId }[]>(
    `SELECT "personId", "enrolmentId" FROM "course_person" WHERE "courseId" = $1 AND "personId" = ANY($2)`,
    [courseId, [...new Set(personIds)]],
  );
  return new Map(rows.map((row) => [row.personId, row.enrolmentId]));
}

async function idsOfGroup(
  manager: EntityManager,
  courseId: CourseId,
  groupId: GroupId,
): Promise<readonly string[]> {
  const rows = await manager.query<{ copyId: string }[]>(
    `SELECT "copyId" FROM "released_copy" WHERE "courseId" = $1 AND "groupId" = $2`,
    [courseId, groupId],
  );
  return [groupId, ...rows.map(({ copyId }) => copyId)];
}
