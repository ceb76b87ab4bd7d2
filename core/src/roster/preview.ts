import { nameFromAddress } from './paste.js';
import type { EnrolmentId } from '../ids/index.js';
import type { Role } from '../course/index.js';
import { sure } from '../lists/index.js';
import { changeOf, dropped, valueOf } from './change.js';
import type { EntryChange, EntryFields, Roster, RosterChange, RosterEntry } from './change.js';
import { oftenMeant } from './columns.js';
import { unguardFormula } from '../files/index.js';
import { fold, oneLine } from '../text/index.js';
import { severalGroups } from './groupsNamed.js';
import { nothingSaid } from './previewRows.js';
import type { FieldChange, Preview, PreviewRow, RowPerson, RowProblem, SaidOfLines } from './previewRows.js';
import { attributeOfHeading } from './headings.js';
import { roleOfWord } from './roleWords.js';
import type { ColumnMeaning } from './headings.js';
import { isAddress, sameAddress, tidyAddress } from '../course/index.js';
import { placeChanges, seatedIn, setOfHeading, splitNames } from './places.js';
import type { KnownSets, NamedPlace } from './places.js';
import type { Table, TableRow } from '../files/index.js';

const longestName = 200;

/** What importing a table would do to the roster, row by row. Nothing is changed here.
 * @param meanings one for each heading of the table.
 * @param roster everyone enrolled, those who left included: they are restored, not doubled.
 * @param role what the people in the file are, unless a column of it says so; people of this role not in the file are `missing`.
 * @param sets those of the course; a group or a set that is not among them yet is shown by its name.
 * @param said what someone said of single lines. */
export function previewImport(
  table: Table,
  meanings: readonly ColumnMeaning[],
  roster: Roster,
  role: Role,
  sets: KnownSets = new Map(),
  said: SaidOfLines = nothingSaid,
): Preview {
  if (meanings.length !== table.headings.length) return { ok: false, code: 'columns-do-not-fit' };
  const single = meanings.filter((meaning) => !oftenMeant.has(meaning));
  if (new Set(single).size !== single.length) return { ok: false, code: 'meaning-twice' };
  if (!meanings.includes('email')) return { ok: false, code: 'no-address-column' };
  if (
    !single.some((meaning) => meaning === 'name' || meaning === 'given-name' || meaning === 'family-name')
  ) {
    return { ok: false, code: 'no-name-column' };
  }

  // Anyone who is named by the address of an entry that was joined to another is that other.
  const byAddress = new Map(
    [...roster].map(([own, { email, joinedTo }]) => {
      const enrolmentId = joinedTo ?? own;
      return [sameAddress(email), { enrolmentId, entry: sure(roster.get(enrolmentId)) }];
    }),
  );
  const lineByPerson = new Map<EnrolmentId, number>();
  const byNumber = new Map(
    [...roster].flatMap(([enrolmentId, entry]) =>
      entry.number === null ? [] : [[entry.number, { enrolmentId, entry }] as const],
    ),
  );
  const people = table.rows.map((row) => ({ row, person: readPerson(table, row, meanings) }));
  const addressed = new Set(people.map(({ person }) => sameAddress(person.email)));
  const namedByNumber = new Set<EnrolmentId>();
  const lineByAddress = new Map<string, number>();
  const lineByNumber = new Map<string, number>();

  const rows = people.map(({ row, person }): PreviewRow => {
    const address = sameAddress(person.email);
    const problems = [
      ...problemsOf(table, row, meanings, person),
      ...severalGroups(table, meanings, person, sets),
    ];

    const sameLine = lineByAddress.get(address);
    if (address !== '' && sameLine !== undefined)
      problems.push({ code: 'same-address-as-line', line: sameLine });
    else lineByAddress.set(address, row.line);

    if (person.number !== null) {
      const numberLine = lineByNumber.get(person.number);
      if (numberLine !== undefined && sameLine === undefined)
        problems.push({ code: 'same-number-as-line', number: person.number, line: numberLine });
      else lineByNumber.set(person.number, row.line);
    }
    const holder = person.number === null ? undefined : byNumber.get(person.number);
    if (holder) namedByNumber.add(holder.enrolmentId);
    const own = byAddress.get(address);
    const mayBeSame = holder !== undefined && !own && !addressed.has(sameAddress(holder.entry.email));
    const hasNewAddress = mayBeSame && said.newAddresses.has(row.line);
    const known = hasNewAddress ? holder : own;
    if (holder && holder.entry !== known?.entry)
      problems.push({
        code: 'number-of-another',
        number: sure(person.number),
        name: holder.entry.name,
        mayBeSame,
        isAlike: fold(holder.entry.name) === fold(person.name),
      });
    const personLine = known && lineByPerson.get(known.enrolmentId);
    if (known && personLine !== undefined && sameLine === undefined)
      problems.push({ code: 'same-person-as-line', line: personLine, name: known.entry.name });
    else if (known && problems.length === 0) lineByPerson.set(known.enrolmentId, row.line);
    if (problems.length > 0) return { line: row.line, kind: 'problem', problems, cells: row.cells };

    if (!known)
      return {
        line: row.line,
        kind: 'new',
        person: { ...person, places: (person.role ?? role) === 'student' ? person.places : [] },
      };
    const { enrolmentId, entry } = known;
    const told = person.role ?? role;
    const otherRole = told === entry.role ? null : { told, isTaken: said.newRoles.has(row.line) };
    const merged = {
      ...merge(entry, { ...person, role: otherRole?.isTaken ? told : entry.role }),
      email: hasNewAddress ? person.email : entry.email,
    };
    const changes = [...changesBetween(entry, merged), ...placeChanges(entry, merged.places, sets)];
    return changes.length === 0
      ? { line: row.line, kind: 'unchanged', enrolmentId, person: merged, otherRole }
      : { line: row.line, kind: 'changed', enrolmentId, person: merged, changes, hasNewAddress, otherRole };
  });
  // A person that a faulty row names, by address or number, is not missing: the row is there, and it needs someone.
  const missing = [...roster].flatMap(([enrolmentId, entry]) =>
    entry.isHere &&
    entry.role === role &&
    !lineByAddress.has(sameAddress(entry.email)) &&
    !lineByPerson.has(enrolmentId) &&
    !namedByNumber.has(enrolmentId)
      ? [enrolmentId]
      : [],
  );
  return { ok: true, rows, missing };
}

/** What importing these rows does to the roster.
 * @param drop those of the missing who are to leave.
 * @param sets every group that a row names is there by now. */
export function importChange(
  roster: Roster,
  rows: readonly PreviewRow[],
  role: Role,
  drop: readonly EnrolmentId[],
  newEnrolmentId: () => EnrolmentId,
  sets: KnownSets = new Map(),
): RosterChange {
  const changes = rows.flatMap((row): EntryChange[] => {
    if (row.kind === 'new') {
      const { places, ...person } = row.person;
      const groups = seatedIn([], places, sets);
      return [
        {
          kind: 'add',
          enrolmentId: newEnrolmentId(),
          entry: { ...person, role: person.role ?? role, isHere: true, groups, joinedTo: null },
        },
      ];
    }
    const entry = row.kind === 'changed' ? roster.get(row.enrolmentId) : undefined;
    if (row.kind !== 'changed' || !entry) return [];
    const { role: told, places, ...said } = row.person;
    const isStaff = told !== null && told !== 'student';
    const to: EntryFields = {
      ...said,
      isHere: true,
      ...(told !== null && { role: told }),
      ...(places.length > 0 && { groups: seatedIn(entry.groups, places, sets) }),
      ...(isStaff && row.otherRole?.isTaken && { groups: [] }),
    };
    const change = changeOf(row.enrolmentId, entry, to);
    return change ? [change] : [];
  });
  const drops = drop.flatMap((enrolmentId) => {
    const entry = roster.get(enrolmentId);
    const change = entry && changeOf(enrolmentId, entry, dropped);
    return change ? [change] : [];
  });
  return [...changes, ...drops];
}

function readPerson(table: Table, row: TableRow, meanings: readonly ColumnMeaning[]): RowPerson {
  const cell = (meaning: ColumnMeaning) => {
    const at = meanings.indexOf(meaning);
    return at < 0 ? '' : tidy(row.cells[at] ?? '');
  };
  const attributes = Object.fromEntries(
    meanings.flatMap((meaning, at) => {
      const value = tidy(row.cells[at] ?? '');
      return meaning === 'attribute' && value !== ''
        ? [[attributeOfHeading(sure(table.headings[at])), value] as const]
        : [];
    }),
  );
  const { name, familyName } = nameOf(
    cell('name'),
    cell('given-name'),
    meanings.includes('family-name') ? cell('family-name') : null,
  );
  return {
    email: tidyAddress(cell('email').replace(/^mailto:/i, '')),
    name,
    familyName,
    reading: cell('reading') || null,
    number: cell('number') || null,
    role: roleOfWord(cell('role')),
    places: meanings.flatMap((meaning, at): NamedPlace[] => {
      if (meaning !== 'section' && meaning !== 'group') return [];
      const set = meaning === 'section' ? null : setOfHeading(sure(table.headings[at])).name;
      return splitNames(tidy(row.cells[at] ?? '')).map((group) => ({ set, group }));
    }),
    attributes,
  };
}

const tidy = (value: string) => oneLine(unguardFormula(value));

/** "Family, Given" in one cell is turned round, unless family names have a column of their own; two cells are joined given name first.
 * @param family null: the file has no such column. */
function nameOf(
  full: string,
  given: string,
  family: string | null,
): { name: string; familyName: string | null } {
  if (full === '') return { name: `${given} ${family ?? ''}`.trim(), familyName: family || null };
  const turned = family === null && /^([^,]+), ([^,]+)$/.exec(full);
  if (turned) return { name: `${turned[2]} ${turned[1]}`, familyName: sure(turned[1]) };
  return { name: full, familyName: family || null };
}

function problemsOf(
  table: Table,
  row: TableRow,
  meanings: readonly ColumnMeaning[],
  person: RowPerson,
): RowProblem[] {
  const problems: RowProblem[] = [];
  const expected = table.headings.length;
  const cells = row.cells.length;
  if (cells < expected && meanings.slice(cells).some((meaning) => meaning !== 'left-out'))
    problems.push({ code: 'too-few-cells', cells, expected });
  if (cells > expected && row.cells.slice(expected).some((cell) => cell.trim() !== ''))
    problems.push({ code: 'too-many-cells', cells, expected });
  meanings.forEach((meaning, at) => {
    const value = (row.cells[at] ?? '').trim();
    if (meaning !== 'attribute' && meaning !== 'left-out' && /^[=+@-]./.test(value)) {
      problems.push({ code: 'looks-like-formula', heading: sure(table.headings[at]), value });
    }
  });
  const roleAt = meanings.indexOf('role');
  const roleWord = roleAt < 0 ? '' : tidy(row.cells[roleAt] ?? '');
  if (roleWord !== '' && person.role === null) problems.push({ code: 'unknown-role', value: roleWord });
  if (problems.length > 0) return problems;
  if (person.email === '') problems.push({ code: 'no-address' });
  else if (!isAddress(person.email)) problems.push({ code: 'bad-address', value: person.email });
  if (person.name === '') problems.push({ code: 'no-name' });
  else if (person.name.length > longestName)
    problems.push({ code: 'name-too-long', length: person.name.length });
  return problems;
}

/** What a file leaves empty, it does not remove. */
function merge(known: RosterEntry, told: RowPerson): RowPerson {
  // A name that is only made from the address never beats one that someone gave.
  const name = told.name === nameFromAddress(told.email) ? known.name : told.name;
  return {
    email: known.email,
    name,
    familyName: told.familyName ?? (name === known.name ? known.familyName : null),
    reading: told.reading ?? known.reading,
    number: told.number ?? known.number,
    role: told.role ?? known.role,
    places: (told.role ?? known.role) === 'student' ? told.places : [],
    attributes: { ...known.attributes, ...told.attributes },
  };
}

function changesBetween(known: RosterEntry, next: RowPerson): FieldChange[] {
  const changes: FieldChange[] = [];
  const compare = (field: string, from: string | null | undefined, to: string | null | undefined) => {
    if ((from ?? '') !== (to ?? '')) changes.push({ field, from: from ?? '', to: to ?? '' });
  };
  if (!known.isHere) changes.push({ field: 'In the course', from: 'left', to: 'again' });
  compare('Email', known.email, next.email);
  compare('Name', known.name, next.name);
  compare('Family name', known.familyName, next.familyName);
  compare('Reading', known.reading, next.reading);
  compare('Number', known.number, next.number);
  compare('Role', known.role, next.role);
  for (const [key, value] of Object.entries(next.attributes)) compare(key, valueOf(known, key), value);
  return changes;
}
