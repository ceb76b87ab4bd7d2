import { stringify } from 'csv-stringify/sync';
import { strToU8, zipSync } from 'fflate';
import type { CourseView } from '@jigsaw/contract/course';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { attributeHeading, groupHeading, joinNames, valueOf } from '@jigsaw/core/roster';
import { fileNames, setFileNames } from '@jigsaw/core/sets';
import { guardFormula } from '@jigsaw/core/files';

/** No cell of ours is run by a spreadsheet; bringing the file in gives the cells as they were. */
const csv = (rows: readonly (readonly string[])[]): string =>
  stringify(rows.map((cells) => cells.map(guardFormula)));

const attributeNames = (entries: readonly RosterEntry[]) => [
  ...new Set(entries.flatMap((entry) => Object.keys(entry.attributes))),
];
const here = (entries: readonly RosterEntry[]) => entries.filter((entry) => entry.leftAt === null);

const groupNames = (sets: RosterView['sets']): ReadonlyMap<GroupId, string> =>
  new Map(sets.flatMap((set) => [...fileNames(set.groups)]));

/** The sets by the names that they have in a file. */
function namedSets(sets: RosterView['sets']): RosterView['sets'] {
  const names = setFileNames(sets);
  return sets.map((set) => ({ ...set, name: sure(names.get(set.id)) }));
}

/** Everyone who is in the course, a line each, with their attributes and their group in every set. With a byte order mark, so that
 * spreadsheets read the names. */
export function writeCsv({ entries, sets: own }: RosterView): string {
  const people = here(entries);
  const sets = namedSets(own);
  const names = attributeNames(people);
  const head = [
    'Number',
    'Name',
    'Family name',
    'E-mail',
    'Latin name',
    'Role',
    ...names.map(attributeHeading),
    ...sets.map(groupHeading),
  ];
  const nameOf = groupNames(sets);
  const rows = people.map((entry) => [
    entry.number ?? '',
    entry.name,
    entry.familyName ?? '',
    entry.email,
    entry.reading ?? '',
    entry.role,
    ...names.map((name) => valueOf(entry, name) ?? ''),
    ...sets.map((set) =>
      joinNames(
        set.groups.flatMap((group) =>
          entry.groups.some((own) => own.groupId === group.id) ? [sure(nameOf.get(group.id))] : [],
        ),
      ),
    ),
  ]);
  return `\ufeff${csv([head, ...rows])}`;
}

const roleWords = {
  student: 'student',
  assistant: 'aide',
  instructor: 'teacher',
  observer: 'administrator',
} as const;

/** The same as a OneRoster 1.1 CSV bundle: the course and every group are classes, memberships are enrolments. */
export function writeBundle(course: CourseView, { entries, sets: own }: RosterView, now: Date): Uint8Array {
  const people = here(entries);
  const sets = namedSets(own);
  const names = attributeNames(people);
  const at = now.toISOString();
  const [org, session] = [`org-${course.id}`, `term-${course.id}`];
  const givenName = ({ name, familyName }: RosterEntry) =>
    familyName && name.endsWith(` ${familyName}`) ? name.slice(0, -familyName.length - 1) : name;
  const familyName = (entry: RosterEntry) => (givenName(entry) === entry.name ? '' : sure(entry.familyName));
  const groups = sets.flatMap((set) => set.groups.map((group) => ({ ...group, set })));
  const nameOf = groupNames(sets);

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
      ['sourcedId', 'status', 'dateLastModified', 'title', 'grades', 'courseSourcedId', 'classCode', 'classType', 'location', 'schoolSourcedId', 'termSourcedIds', 'subjects', 'subjectCodes', 'periods', 'metadata.set', 'metadata.isExclusive'],
      [`class-${course.id}`, 'active', at, course.title, '', course.id, course.code, 'scheduled', '', org, session, '', '', '', '', ''],
      ...groups.map(({ id, set }) => [id, 'active', at, sure(nameOf.get(id)), '', course.id, '', 'scheduled', '', org, session, '', '', '', set.name, String(set.isExclusive)]),
    ],
    'users.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'enabledUser', 'orgSourcedIds', 'role', 'username', 'userIds', 'givenName', 'familyName', 'middleName', 'identifier', 'email', 'sms', 'phone', 'agentSourcedIds', 'grades', 'password', 'metadata.reading', ...names.map((name) => `metadata.attribute.${name}`)],
      ...people.map((entry) => [entry.personId, 'active', at, 'true', org, roleWords[entry.role], entry.email, '', givenName(entry), familyName(entry), '', entry.number ?? '', entry.email, '', '', '', '', '', entry.reading ?? '', ...names.map((name) => valueOf(entry, name) ?? '')]),
    ],
    'enrollments.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'classSourcedId', 'schoolSourcedId', 'userSourcedId', 'role', 'primary', 'beginDate', 'endDate'],
      ...people.flatMap((entry) => [
        [entry.enrolmentId, 'active', at, `class-${course.id}`, org, entry.personId, roleWords[entry.role], String(entry.role === 'instructor'), entry.joinedAt.slice(0, 10), ''],
        ...entry.groups.flatMap((group) => (nameOf.has(group.groupId) ? [group] : [])).map((group) => [`${entry.enrolmentId}-${group.number}-${group.setId}`, 'active', at, group.groupId, org, entry.personId, roleWords[entry.role], 'false', '', '']),
      ]),
    ],
  }; // prettier-ignore
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, rows]) => [name, strToU8(csv(rows))])));
}
