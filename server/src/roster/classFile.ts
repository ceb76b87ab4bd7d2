import { stringify } from 'csv-stringify/sync';
import { strToU8, zipSync } from 'fflate';
import type { CourseView, RosterEntry, RosterView } from '@jigsaw/contract/roster';
import { groupHeading, guardFormula } from '@jigsaw/core/roster';

/** No cell of ours is run by a spreadsheet; bringing the file in gives the cells as they were. */
const csv = (rows: readonly (readonly string[])[]): string => stringify(rows.map((cells) => cells.map(guardFormula)));

const attributeNames = (entries: readonly RosterEntry[]) => [...new Set(entries.flatMap((entry) => Object.keys(entry.attributes)))];
const here = (entries: readonly RosterEntry[]) => entries.filter((entry) => entry.leftAt === null);

/** Everyone who is in the course, a line each, with their attributes and their group in every set. With a byte order mark, so that
 * spreadsheets read the names. */
export function writeCsv({ entries, sets }: RosterView): string {
  const people = here(entries);
  const names = attributeNames(people);
  const head = ['Number', 'Name', 'Family name', 'E-mail', 'Latin name', 'Role', ...names, ...sets.map((set) => groupHeading(set.name))];
  const rows = people.map((entry) => [
    entry.number ?? '',
    entry.name,
    entry.familyName ?? '',
    entry.email,
    entry.reading ?? '',
    entry.role,
    ...names.map((name) => entry.attributes[name] ?? ''),
    ...sets.map((set) => entry.groups.flatMap((group) => (group.setId === set.id ? [group.name] : [])).join('; ')),
  ]);
  return `\ufeff${csv([head, ...rows])}`;
}

const roleWords = { student: 'student', assistant: 'aide', instructor: 'teacher', observer: 'administrator' } as const;

/** The same as a OneRoster 1.1 CSV bundle: the course and every group are classes, memberships are enrolments. */
export function writeBundle(course: CourseView, { entries, sets }: RosterView, now: Date): Uint8Array {
  const people = here(entries);
  const names = attributeNames(people);
  const at = now.toISOString();
  const [org, session] = [`org-${course.id}`, `term-${course.id}`];
  const givenName = ({ name, familyName }: RosterEntry) => (familyName && name.endsWith(` ${familyName}`) ? name.slice(0, -familyName.length - 1) : name);
  const familyName = (entry: RosterEntry) => (givenName(entry) === entry.name ? '' : entry.familyName!);
  const groups = new Map(people.flatMap((entry) => entry.groups.map((group) => [group.groupId, group] as const)));
  const setName = new Map(sets.map((set) => [set.id, set.name]));

  const files = {
    'manifest.csv': [
      ['propertyName', 'value'],
      ['manifest.version', '1.0'],
      ['oneroster.version', '1.1'],
      ...['academicSessions', 'classes', 'courses', 'enrollments', 'orgs', 'users'].map((file) => [`file.${file}`, 'bulk']),
      ...['categories', 'classResources', 'courseResources', 'demographics', 'lineItems', 'resources', 'results'].map((file) => [`file.${file}`, 'absent']),
    ],
    'orgs.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'name', 'type', 'identifier', 'parentSourcedId'],
      [org, 'active', at, course.title, 'school', '', ''],
    ],
    'academicSessions.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'title', 'type', 'startDate', 'endDate', 'parentSourcedId', 'schoolYear'],
      [session, 'active', at, course.term, 'term', at.slice(0, 10), at.slice(0, 10), '', at.slice(0, 4)],
    ],
    'courses.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'schoolYearSourcedId', 'title', 'courseCode', 'grades', 'orgSourcedId', 'subjects', 'subjectCodes'],
      [course.id, 'active', at, session, course.title, course.code, '', org, '', ''],
    ],
    'classes.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'title', 'grades', 'courseSourcedId', 'classCode', 'classType', 'location', 'schoolSourcedId', 'termSourcedIds', 'subjects', 'subjectCodes', 'periods', 'metadata.set'],
      [`class-${course.id}`, 'active', at, course.title, '', course.id, course.code, 'scheduled', '', org, session, '', '', '', ''],
      ...[...groups.values()].map((group) => [group.groupId, 'active', at, group.name, '', course.id, '', 'scheduled', '', org, session, '', '', '', setName.get(group.setId) ?? '']),
    ],
    'users.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'enabledUser', 'orgSourcedIds', 'role', 'username', 'userIds', 'givenName', 'familyName', 'middleName', 'identifier', 'email', 'sms', 'phone', 'agentSourcedIds', 'grades', 'password', 'metadata.reading', ...names.map((name) => `metadata.attribute.${name}`)],
      ...people.map((entry) => [entry.personId, 'active', at, 'true', org, roleWords[entry.role], entry.email, '', givenName(entry), familyName(entry), '', entry.number ?? '', entry.email, '', '', '', '', '', entry.reading ?? '', ...names.map((name) => entry.attributes[name] ?? '')]),
    ],
    'enrollments.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'classSourcedId', 'schoolSourcedId', 'userSourcedId', 'role', 'primary', 'beginDate', 'endDate'],
      ...people.flatMap((entry) => [
        [entry.enrolmentId, 'active', at, `class-${course.id}`, org, entry.personId, roleWords[entry.role], String(entry.role === 'instructor'), entry.joinedAt.slice(0, 10), ''],
        ...entry.groups.map((group) => [`${entry.enrolmentId}-${group.number}-${group.setId}`, 'active', at, group.groupId, org, entry.personId, roleWords[entry.role], 'false', '', '']),
      ]),
    ],
  }; // prettier-ignore
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, rows]) => [name, strToU8(csv(rows))])));
}
