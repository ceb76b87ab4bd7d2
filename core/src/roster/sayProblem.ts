import { unreachable } from '../ids/index.js';
import { mostGroups } from '../sets/index.js';
import type { RosterFault } from './change.js';
import type { LackingGroups } from './groupsNamed.js';
import type { Preview, RowProblem } from './previewRows.js';
import type { Paste } from './paste.js';
import type { ReadTable } from './readTable.js';

/** What is wrong with a row and what to do about it. */
export function sayRowProblem(problem: RowProblem): string {
  switch (problem.code) {
    case 'no-address':
      return 'No email address in this row.';
    case 'bad-address':
      return `“${problem.value}” is not an email address. Write it like name@school.example.`;
    case 'same-address-as-line':
      return `The same address as in line ${problem.line}. Keep one of the two.`;
    case 'same-person-as-line':
      return `Another address of ${problem.name}, who is in line ${problem.line} already. Keep one of the two.`;
    case 'no-name':
      return 'No name in this row.';
    case 'name-too-long':
      return `The name has ${problem.length} characters; 200 are the most. Perhaps a quote is missing.`;
    case 'looks-like-formula':
      return `“${problem.value}” under ${problem.heading} begins like a formula. Delete the first sign.`;
    case 'number-of-another':
      return `${problem.number} is the number of ${problem.name}, who has another address.`;
    case 'same-number-as-line':
      return `The same number, ${problem.number}, as in line ${problem.line}.`;
    case 'unknown-role':
      return `“${problem.value}” is no role. Write student, assistant, instructor or observer.`;
    case 'several-groups':
      return `Several ${problem.set === null ? 'sections' : `groups of ${problem.set}`}: ${problem.groups.join(' and ')}. Keep the one in which this person is to sit.`;
    case 'too-few-cells':
      return `${problem.cells} of ${problem.expected} cells. The end of the row is missing.`;
    case 'too-many-cells':
      return `${problem.cells} cells where ${problem.expected} are expected. A comma may stand in a name without quotes.`;
    default:
      return unreachable(problem);
  }
}

/** Why a file is no class list at all. */
export function sayUnreadable(read: Exclude<ReadTable, { ok: true }>): string {
  switch (read.code) {
    case 'empty':
      return 'The file is empty. Choose the one with the class in it.';
    case 'header-only':
      return 'The file has headings but no people under them.';
    case 'spreadsheet':
      return 'This is a spreadsheet in an older form. Save it as XLSX or CSV and import that.';
    case 'pdf':
      return 'This is a PDF. Ask for the class list as CSV.';
    case 'binary':
      return 'This is not a text file. Import the class list as CSV.';
    case 'too-many-rows':
      return 'The file has over 20,000 rows. Import it as several files.';
    case 'too-many-columns':
      return 'The table has over 200 columns. Delete those that are not about people.';
    case 'too-many-cells':
      return 'The table has over 400,000 cells. Delete columns that are not needed, or import it as several files.';
    case 'row-too-long':
      return 'One row of this file has over 100,000 characters. Check that this is a class list.';
    case 'not-a-table':
      return 'The rows of this file could not be told apart. Save it again as CSV.';
    case 'archive-broken':
      return 'This archive or spreadsheet is damaged. Download or save it again.';
    case 'archive-too-large':
      return 'This archive unpacks to more than 40 MB. A class list is smaller; check that this is the right file.';
    case 'archive-without-people':
      return 'This archive holds neither a spreadsheet nor a users.csv. Import the class list itself.';
    case 'quote-not-closed':
      return `The quote that opens in line ${read.line} is never closed. Close it or delete it.`;
    default:
      return unreachable(read);
  }
}

/** Why what was pasted cannot be read. */
export function sayUnreadablePaste(paste: Exclude<Paste, { ok: true }>): string {
  switch (paste.code) {
    case 'empty':
      return 'Nothing was pasted. Write one person per line.';
    case 'too-many-rows':
      return 'Over 20,000 lines were pasted. Paste them in several parts.';
    case 'line-too-long':
      return `Line ${paste.line} is too long for a list of people. Write one person per line.`;
    default:
      return sayUnreadable(paste);
  }
}

/** What must be settled about the columns before any row can be read. */
export function sayColumnProblem(preview: Exclude<Preview, { ok: true }>): string {
  switch (preview.code) {
    case 'no-address-column':
      return 'Say which column holds the email addresses: people are told apart by them.';
    case 'no-name-column':
      return 'Say which column holds the names.';
    case 'meaning-twice':
      return 'Two columns have the same meaning. Choose another for one of them.';
    case 'columns-do-not-fit':
      return 'These columns belong to another file. Read the file again.';
    default:
      return unreachable(preview.code);
  }
}

const longestName = { set: 120, group: 80 };

/** Why the groups that a file names cannot be made; null: they can. A column that was taken for groups by mistake is found out here. */
export function sayLacking(lacking: readonly LackingGroups[]): string | null {
  for (const { set, groups } of lacking) {
    const name = set ?? 'sections';
    if (groups.length > mostGroups)
      return `${name} would get ${groups.length} new groups; ${mostGroups} are the most. Say that this column means something else.`;
    if (name.length > longestName.set)
      return `A set's name has at most ${longestName.set} characters. Shorten the heading “${name.slice(0, 40)}…”.`;
    const long = groups.find((group) => group.length > longestName.group);
    if (long !== undefined)
      return `“${long.slice(0, 40)}…” in the column ${name} is too long for a group's name. Say that this column means something else.`;
  }
  return null;
}

/** Why a change of the roster cannot be. */
export function sayFault(fault: RosterFault): string {
  switch (fault.code) {
    case 'no-instructor':
      return 'A course needs an instructor. Make someone else an instructor first.';
    case 'address-twice':
      return `${fault.names.join(' and ')} would have the same address, ${fault.email}. Give one of them another.`;
    case 'number-twice':
      return `${fault.names.join(' and ')} would have the same number, ${fault.number}. Give one of them another.`;
    default:
      return unreachable(fault);
  }
}
