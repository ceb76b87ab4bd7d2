import { decode, guardFormula, unguardFormula } from '../files/index.js';
import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';
import { attributeHeading } from './headings.js';
import { records, withinLimits } from './readTable.js';
import { groupHeading, joinNames } from './places.js';
import type { BundleClass, TableRow } from '../files/index.js';
import type { ReadTable } from './readTable.js';

type Record = Readonly<{ line: number; cell: (heading: string) => string; at: (column: number) => string }>;

/** Prefix of columns that the standard leaves to anyone who writes the file (1EdTech OneRoster 1.1, §4.2). */
const attributePrefix = 'metadata.attribute.';
const setColumn = 'metadata.set';
const exclusiveColumn = 'metadata.isExclusive';

/** The people of a OneRoster 1.1 or 1.2 CSV bundle as a class file: those enrolled in any of its classes, with their role there.
 * @param files the bundle's files by name, in lower case. */
export function readBundle(files: ReadonlyMap<string, Uint8Array>): ReadTable {
  const users = recordsOf(files.get('users.csv'));
  if (!users) return { ok: false, code: 'archive-without-people' };
  const enrolments = (recordsOf(files.get('enrollments.csv')) ?? []).filter(isActive);
  const classes = new Map(
    (recordsOf(files.get('classes.csv')) ?? [])
      .filter(isActive)
      .map((each) => [each.cell('sourcedId'), each]),
  );
  const usersRoles = new Map(
    (recordsOf(files.get('roles.csv')) ?? [])
      .filter(isActive)
      .map((each) => [each.cell('userSourcedId'), each.cell('role')]),
  );

  const enrolledIn = new Map<string, Record[]>();
  for (const each of enrolments)
    enrolledIn.set(each.cell('userSourcedId'), [...(enrolledIn.get(each.cell('userSourcedId')) ?? []), each]);
  const people = users.filter(
    (user) => isActive(user) && (enrolments.length === 0 || enrolledIn.has(user.cell('sourcedId'))),
  );
  const columns = classColumns([...classes.values()]);
  const attributes = headingsOf(sure(files.get('users.csv'))).flatMap((heading, at) =>
    heading.startsWith(attributePrefix)
      ? [{ at, heading: attributeHeading(heading.slice(attributePrefix.length)) }]
      : [],
  );

  const headings = [
    'E-mail',
    'Given name',
    'Family name',
    'Latin name',
    'Number',
    'Role',
    ...columns.map((column) => column.heading),
    ...attributes.map(({ heading }) => heading),
  ];
  const rows = people.map((user): TableRow => {
    const id = user.cell('sourcedId');
    const role = enrolledIn.get(id)?.[0]?.cell('role') || user.cell('role') || usersRoles.get(id) || '';
    const own = new Set(enrolledIn.get(id)?.map((each) => each.cell('classSourcedId')));
    return {
      line: user.line,
      cells: [
        user.cell('email') || (user.cell('username').includes('@') ? user.cell('username') : ''),
        user.cell('givenName'),
        user.cell('familyName'),
        user.cell('metadata.reading'),
        user.cell('identifier'),
        role,
        ...columns.map(({ titles }) =>
          guardFormula(
            joinNames([...titles].flatMap(([classId, title]) => (own.has(classId) ? [title] : []))),
          ),
        ),
        ...attributes.map(({ at }) => user.at(at)),
      ],
    };
  });
  const told = columns.flatMap(({ set, titles }) =>
    [...titles].map(([sourceId, title]): BundleClass => ({ set, sourceId, title })),
  );
  return withinLimits({
    headings,
    hasHeader: true,
    rows,
    encoding: 'UTF-8',
    delimiter: 'bundle',
    classes: told,
  });
}

interface ClassColumn {
  readonly heading: string;
  readonly set: string | null;
  /** What each of its classes is called, by its id. */
  readonly titles: ReadonlyMap<string, string>;
}

/** The columns in which a person's classes are told: one for sections, if there are several, and one for each group set. */
function classColumns(classes: readonly Record[]): ClassColumn[] {
  const bySet = new Map<string, Record[]>();
  for (const each of classes)
    bySet.set(nameIn(each, setColumn), [...(bySet.get(nameIn(each, setColumn)) ?? []), each]);
  return [...bySet].flatMap(([name, own]): ClassColumn[] => {
    const titles = titlesOf(own);
    if (name === '') return own.length > 1 ? [{ heading: 'Section', set: null, titles }] : [];
    const isExclusive = own.every((each) => each.cell(exclusiveColumn) !== 'false');
    return [{ heading: groupHeading({ name, isExclusive }), set: name, titles }];
  });
}

/** A name as it was before our own file guarded it from spreadsheets. */
const nameIn = (record: Record, heading: string): string => unguardFormula(record.cell(heading));

/** What each class is called; those whose titles are the same but for case and accents are told apart by their code. */
function titlesOf(classes: readonly Record[]): ReadonlyMap<string, string> {
  const taken = new Map<string, number>();
  const titled = classes.map((each) => ({ each, title: nameIn(each, 'title') }));
  for (const { title } of titled) taken.set(fold(title), (taken.get(fold(title)) ?? 0) + 1);
  return new Map(
    titled.map(({ each, title }) => {
      const code = each.cell('classCode') || each.cell('sourcedId');
      return [
        each.cell('sourcedId'),
        title === '' || sure(taken.get(fold(title))) > 1 ? `${title} (${code})`.trim() : title,
      ];
    }),
  );
}

const isActive = (record: Record): boolean => record.cell('status').toLowerCase() !== 'tobedeleted';

function rowsOf(bytes: Uint8Array): readonly TableRow[] {
  const decoded = decode(bytes);
  return decoded.ok ? records(decoded.text.replace(/\r\n?/g, '\n'), ',') : [];
}

const headingsOf = (bytes: Uint8Array): string[] =>
  (rowsOf(bytes)[0]?.cells ?? []).map((cell) => cell.trim());

function recordsOf(bytes: Uint8Array | undefined): Record[] | null {
  if (!bytes) return null;
  const [head, ...rows] = rowsOf(bytes);
  if (!head) return [];
  const places = new Map(head.cells.map((cell, at) => [cell.trim().toLowerCase(), at]));
  return rows.map((row) => ({
    line: row.line,
    cell: (heading) => (row.cells[places.get(heading.toLowerCase()) ?? -1] ?? '').trim(),
    at: (column) => (row.cells[column] ?? '').trim(),
  }));
}
