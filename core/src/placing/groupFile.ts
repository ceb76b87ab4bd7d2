import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sameAddress } from '../course/index.js';
import { unguardFormula } from '../files/index.js';
import type { Table } from '../files/index.js';
import { sure } from '../lists/index.js';
import { fileNames } from '../sets/index.js';
import { fold } from '../text/index.js';
import { movesOut } from './placement.js';
import type { Move, Placement, Seat } from './placement.js';

/** Someone of the class as a file of groups may name them. */
export interface NamedStudent {
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly email: string;
  readonly number: string | null;
  readonly seats: readonly Seat[];
}

export interface NamedGroup {
  readonly id: GroupId;
  readonly number: number;
  readonly name: string;
}

export type GroupFileProblem =
  | { readonly code: 'nobody-named' }
  | { readonly code: 'unknown-person'; readonly value: string }
  | { readonly code: 'several-of-that-name'; readonly value: string }
  | { readonly code: 'twice'; readonly name: string; readonly line: number }
  | { readonly code: 'unknown-group'; readonly value: string };

export type GroupFile =
  | {
      readonly ok: true;
      readonly moves: readonly Move[];
      /** Who sit where the file says already. */
      readonly same: number;
      readonly problems: readonly { readonly line: number; readonly problem: GroupFileProblem }[];
      /** Groups that are named and not there, in the order of the file. */
      readonly lacking: readonly string[];
    }
  | { readonly ok: false; readonly code: 'no-person-column' | 'no-group-column' };

/** Columns of a file of groups, counted from 0; null: as its headings say. */
export interface GroupFileColumns {
  readonly person: number | null;
  readonly group: number | null;
}
const asHeaded: GroupFileColumns = { person: null, group: null };

const groupWords = [
  'group',
  'group name',
  'team',
  'gruppe',
  'groupe',
  'grupo',
  'equipo',
  'equipa',
  'grupp',
  'groep',
  'gruppo',
  'equipe',
  'team name',
  'ubungsgruppe',
  'tutorial',
  'tutorium',
  'section',
  'lab group',
];
const emailWords = ['email', 'e-mail', 'mail', 'mail address', 'address', 'courriel', 'correo', 'e-post'];
const numberWords = [
  'number',
  'student number',
  'id',
  'student id',
  'matrikel',
  'matrikelnummer',
  'numero',
  'matricula',
];
const nameWords = ['name', 'student', 'full name', 'student name', 'nom', 'nombre', 'nome', 'namn', 'naam'];

/** Everyone with their groups in a set, for a file that `readGroupFile` takes back: a heading, then a line for each place by the groups'
 * numbers, those without a place last. */
export function groupFileLines(
  setName: string,
  groups: readonly NamedGroup[],
  students: readonly NamedStudent[],
): string[][] {
  const names = fileNames(groups);
  const groupOf = new Map(groups.map((group) => [group.id, group]));
  const places = students.flatMap(({ seats, number, name, email }) => {
    const who = [number ?? '', name, email];
    if (seats.length === 0) return [{ at: Infinity, cells: ['', '', ...who] }];
    return seats.map(({ groupId }) => {
      const at = sure(groupOf.get(groupId)).number;
      return { at, cells: [String(at), sure(names.get(groupId)), ...who] };
    });
  });
  const lines = places.toSorted((a, b) => (a.at === b.at ? 0 : a.at - b.at)).map(({ cells }) => cells);
  return [[`Group number in ${setName}`, 'Group', 'Number', 'Name', 'E-mail'], ...lines];
}

/** Who should sit where, by a file with a column for the person (address, number or name) and one for the group (name or number). An
 * empty group takes its person out. No one who is not in the file moves.
 * @param isExclusive else the lines of one person together name all their groups.
 * @param chosen columns that someone chose, whatever their headings say; a person is found there by address, number or name. */
export function readGroupFile(
  { headings, rows }: Pick<Table, 'headings' | 'rows'>,
  students: readonly NamedStudent[],
  groups: readonly NamedGroup[],
  isExclusive = true,
  chosen: GroupFileColumns = asHeaded,
): GroupFile {
  const groupAt = chosen.group ?? columnOf(headings, groupWords);
  const ways = [
    {
      at: columnOf(headings, emailWords),
      find: (value: string) =>
        students.filter((student) => sameAddress(student.email) === sameAddress(value)),
    },
    {
      at: columnOf(headings, numberWords),
      find: (value: string) => students.filter((student) => student.number === value),
    },
    {
      at: columnOf(headings, nameWords),
      find: (value: string) => students.filter((student) => fold(student.name) === fold(value)),
    },
  ];
  const inAnyWay = (value: string) =>
    ways.map(({ find }) => find(value)).find((found) => found.length > 0) ?? [];
  const person =
    chosen.person === null ? ways.filter(({ at }) => at >= 0) : [{ at: chosen.person, find: inAnyWay }];
  if (groupAt < 0) return { ok: false, code: 'no-group-column' };
  if (person.length === 0) return { ok: false, code: 'no-person-column' };

  const names = fileNames(groups);
  const byName = new Map(groups.map((group) => [fold(sure(names.get(group.id))), group]));
  const byNumber = new Map(groups.map((group) => [String(group.number), group]));
  const lineOf = new Map<EnrolmentId, number>();
  const wanted = new Map<EnrolmentId, Set<GroupId>>();
  const problems: { line: number; problem: GroupFileProblem }[] = [];
  for (const { line, cells } of rows) {
    const cell = (at: number) => unguardFormula(cells[at] ?? '').trim();
    const told = person.map(({ at, find }) => ({ value: cell(at), find })).find(({ value }) => value !== '');
    const found = told?.find(told.value) ?? [];
    const groupName = cell(groupAt);
    const group = groupName === '' ? null : (byName.get(fold(groupName)) ?? byNumber.get(groupName));
    const [student, ...more] = found;
    const before = student && lineOf.get(student.enrolmentId);
    if (!told) problems.push({ line, problem: { code: 'nobody-named' } });
    else if (!student) problems.push({ line, problem: { code: 'unknown-person', value: told.value } });
    else if (more.length > 0)
      problems.push({ line, problem: { code: 'several-of-that-name', value: told.value } });
    else if (before !== undefined && isExclusive)
      problems.push({ line, problem: { code: 'twice', name: student.name, line: before } });
    else if (group === undefined)
      problems.push({ line, problem: { code: 'unknown-group', value: groupName } });
    else {
      lineOf.set(student.enrolmentId, line);
      wanted.set(
        student.enrolmentId,
        new Set([...(wanted.get(student.enrolmentId) ?? []), ...(group ? [group.id] : [])]),
      );
    }
  }
  const placement = new Map(students.map((student) => [student.enrolmentId, student.seats]));
  const moves = [...wanted].flatMap(([student, to]) => movesBetween(placement, student, to));
  const same = [...wanted.keys()].filter((id) => !moves.some((move) => move.student === id)).length;
  const lacking = new Map<string, string>();
  for (const { problem } of problems)
    if (problem.code === 'unknown-group' && !lacking.has(fold(problem.value)))
      lacking.set(fold(problem.value), problem.value);
  return { ok: true, moves, same, problems, lacking: [...lacking.values()] };
}

/** The column that is called by the first of these words that any is called by; -1: none is. */
const columnOf = (headings: readonly string[], words: readonly string[]): number => {
  const folded = headings.map(fold);
  return words.map((word) => folded.indexOf(word)).find((at) => at >= 0) ?? -1;
};

/** The columns that the headings name; null: they name none. */
export function groupFileColumns(headings: readonly string[]): GroupFileColumns {
  const orNull = (at: number) => (at < 0 ? null : at);
  const person = [emailWords, numberWords, nameWords]
    .map((words) => columnOf(headings, words))
    .find((at) => at >= 0);
  return { person: person ?? null, group: orNull(columnOf(headings, groupWords)) };
}

/** From the places that someone has to those they are to have; the first of each is one move. */
function movesBetween(placement: Placement, student: EnrolmentId, to: ReadonlySet<GroupId>): Move[] {
  const seats = sure(placement.get(student));
  const out = movesOut(placement, [student], (groupId) => !to.has(groupId));
  const into = [...to].filter((groupId) => !seats.some((seat) => seat.groupId === groupId));
  const [firstOut, ...moreOut] = out;
  const [firstIn, ...moreIn] = into;
  const first =
    firstOut && firstIn
      ? [{ ...firstOut, to: firstIn }]
      : firstOut
        ? [firstOut]
        : firstIn
          ? [{ student, from: null, to: firstIn }]
          : [];
  return [...first, ...moreOut, ...moreIn.map((groupId) => ({ student, from: null, to: groupId }))];
}

export function sayGroupFileProblem(problem: GroupFileProblem): string {
  switch (problem.code) {
    case 'nobody-named':
      return 'This line names no one.';
    case 'unknown-person':
      return `No one in this course is called “${problem.value}”. Import them under People first.`;
    case 'several-of-that-name':
      return `Several people are called ${problem.value}. Name them by address or number.`;
    case 'twice':
      return `${problem.name} stands in line ${problem.line} already; in this set everyone has one place.`;
    case 'unknown-group':
      return `This set has no group “${problem.value}”. Write a group’s name or number.`;
  }
}
