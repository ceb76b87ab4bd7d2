import { decode } from '../files/index.js';
import { sure } from '../lists/index.js';
import { asTable, records } from './readTable.js';
import { groupHeading, joinNames } from './places.js';
import type { BundleClass, TableRow } from '../files/index.js';
import type { ReadTable } from './readTable.js';

type Record = Readonly<{ line: number; cell: (heading: string) => string }>;

/** Prefix of columns that the standard leaves to whoever writes the file (1EdTech OneRoster 1.1, §4.2). */
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
  const attributes = headingsOf(sure(files.get('users.csv'))).filter((heading) =>
    heading.startsWith(attributePrefix),
  );

  const headings = [
    'E-mail',
    'Given name',
    'Family name',
    'Latin name',
    'Number',
    'Role',
    ...columns.map((column) => column.heading),
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
          joinNames([...titles].flatMap(([classId, title]) => (own.has(classId) ? [title] : []))),
        ),
        ...attributes.map((heading) => user.cell(heading)),
      ],
    };
  });
  const names = [...headings, ...attributes.map((heading) => heading.slice(attributePrefix.length))];
  if (rows.length === 0) return { ok: false, code: 'header-only' };
  const read = asTable([{ line: 1, cells: names }, ...rows], 'UTF-8', 'bundle');
  const told = columns.flatMap(({ set, titles }) =>
    [...titles].map(([sourceId, title]): BundleClass => ({ set, sourceId, title })),
  );
  return read.ok ? { ok: true, table: { ...read.table, classes: told } } : read;
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
    bySet.set(each.cell(setColumn), [...(bySet.get(each.cell(setColumn)) ?? []), each]);
  return [...bySet].flatMap(([name, own]): ClassColumn[] => {
    const titles = titlesOf(own);
    if (name === '') return own.length > 1 ? [{ heading: 'Section', set: null, titles }] : [];
    const isExclusive = own.every((each) => each.cell(exclusiveColumn) !== 'false');
    return [{ heading: groupHeading({ name, isExclusive }), set: name, titles }];
  });
}

/** What each class is called; those that share a title are told apart by their code. */
function titlesOf(classes: readonly Record[]): ReadonlyMap<string, string> {
  const taken = new Map<string, number>();
  for (const each of classes) taken.set(each.cell('title'), (taken.get(each.cell('title')) ?? 0) + 1);
  return new Map(
    classes.map((each) => {
      const title = each.cell('title');
      const code = each.cell('classCode') || each.cell('sourcedId');
      return [
        each.cell('sourcedId'),
        title === '' || sure(taken.get(title)) > 1 ? `${title} (${code})`.trim() : title,
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
  }));
}
