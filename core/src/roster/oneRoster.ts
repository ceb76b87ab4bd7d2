import { decode } from './decode.js';
import { asTable, records } from './readTable.js';
import type { BundleSection, ReadTable, TableRow } from './readTable.js';

type Record = Readonly<{ line: number; cell: (heading: string) => string }>;

/** Prefix of columns that the standard leaves to whoever writes the file (1EdTech OneRoster 1.1, §4.2). */
const attributePrefix = 'metadata.attribute.';
const setColumn = 'metadata.set';

/** The people of a OneRoster 1.1 or 1.2 CSV bundle as a class file: those enrolled in any of its classes, with their role there.
 * @param files the bundle's files by name, in lower case. */
export function readBundle(files: ReadonlyMap<string, Uint8Array>): ReadTable {
  const users = recordsOf(files.get('users.csv'));
  if (!users) return { ok: false, code: 'archive-without-people' };
  const enrolments = (recordsOf(files.get('enrollments.csv')) ?? []).filter(isActive);
  const classes = new Map((recordsOf(files.get('classes.csv')) ?? []).filter(isActive).map((each) => [each.cell('sourcedId'), each]));
  const usersRoles = new Map((recordsOf(files.get('roles.csv')) ?? []).filter(isActive).map((each) => [each.cell('userSourcedId'), each.cell('role')]));

  const enrolledIn = new Map<string, Record[]>();
  for (const each of enrolments) enrolledIn.set(each.cell('userSourcedId'), [...(enrolledIn.get(each.cell('userSourcedId')) ?? []), each]);
  // What a class of a group set is called is told by the set, not as a section of the registrar's.
  const isSection = (classId: string) => classes.has(classId) && classes.get(classId)!.cell(setColumn) === '';
  const sectionsOf = (userId: string) => [...new Set((enrolledIn.get(userId) ?? []).map((each) => each.cell('classSourcedId')).filter(isSection))];
  const people = users.filter((user) => isActive(user) && (enrolments.length === 0 || enrolledIn.has(user.cell('sourcedId'))));
  const titles = titlesOf([...classes.values()].filter((each) => each.cell(setColumn) === ''));
  const hasSections = titles.size > 1;
  const attributes = headingsOf(files.get('users.csv')!).filter((heading) => heading.startsWith(attributePrefix));

  const headings = ['E-mail', 'Given name', 'Family name', 'Latin name', 'Number', 'Role', ...(hasSections ? ['Section'] : [])];
  const rows = people.map((user): TableRow => {
    const id = user.cell('sourcedId');
    const role = enrolledIn.get(id)?.[0]?.cell('role') || user.cell('role') || usersRoles.get(id) || '';
    const sections = sectionsOf(id).map((classId) => titles.get(classId)!);
    return {
      line: user.line,
      cells: [
        user.cell('email') || (user.cell('username').includes('@') ? user.cell('username') : ''),
        user.cell('givenName'),
        user.cell('familyName'),
        user.cell('metadata.reading'),
        user.cell('identifier'),
        role,
        ...(hasSections ? [sections.join('; ')] : []),
        ...attributes.map((heading) => user.cell(heading)),
      ],
    };
  });
  const names = [...headings, ...attributes.map((heading) => heading.slice(attributePrefix.length))];
  if (rows.length === 0) return { ok: false, code: 'header-only' };
  const read = asTable([{ line: 1, cells: names }, ...rows], 'UTF-8', 'bundle');
  const sections = hasSections ? [...titles].map(([sourceId, title]): BundleSection => ({ sourceId, title })) : [];
  return read.ok ? { ok: true, table: { ...read.table, sections } } : read;
}

/** What each class is called; those that share a title are told apart by their code. A semicolon parts sections in a cell. */
function titlesOf(classes: readonly Record[]): ReadonlyMap<string, string> {
  const taken = new Map<string, number>();
  for (const each of classes) taken.set(each.cell('title'), (taken.get(each.cell('title')) ?? 0) + 1);
  return new Map(
    classes.map((each) => {
      const title = each.cell('title');
      const code = each.cell('classCode') || each.cell('sourcedId');
      return [each.cell('sourcedId'), (title === '' || taken.get(title)! > 1 ? `${title} (${code})`.trim() : title).replaceAll(';', ',')];
    }),
  );
}

const isActive = (record: Record): boolean => record.cell('status').toLowerCase() !== 'tobedeleted';

function rowsOf(bytes: Uint8Array): readonly TableRow[] {
  const decoded = decode(bytes);
  return decoded.ok ? records(decoded.text.replace(/\r\n?/g, '\n'), ',') : [];
}

const headingsOf = (bytes: Uint8Array): string[] => (rowsOf(bytes)[0]?.cells ?? []).map((cell) => cell.trim());

function recordsOf(bytes: Uint8Array | undefined): Record[] | null {
  if (!bytes) return null;
  const [head, ...rows] = rowsOf(bytes);
  if (!head) return [];
  const places = new Map(head.cells.map((cell, at) => [cell.trim().toLowerCase(), at]));
  return rows.map((row) => ({ line: row.line, cell: (heading) => (row.cells[places.get(heading.toLowerCase()) ?? -1] ?? '').trim() }));
}
