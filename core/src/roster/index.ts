export { applyChange, asRole, changeOf, dropped, inverseOf, joinChange, valueOf } from './change.js';
export type {
  ChangedRoster,
  EntryChange,
  EntryFields,
  Roster,
  RosterChange,
  RosterEntry,
  RosterFault,
} from './change.js';
export { guessColumns, withKnownSets } from './columns.js';
export type { ColumnGuess } from './columns.js';
export type { ColumnMeaning } from './headings.js';
export { readPaste } from './paste.js';
export type { Paste } from './paste.js';
export type { RosterPerson } from './person.js';
export { attributeHeading } from './headings.js';
export { groupHeading, joinNames, setKey, setOfHeading } from './places.js';
export type { KnownSet, KnownSets, NamedPlace } from './places.js';
export { lackingGroups } from './groupsNamed.js';
export type { LackingGroups } from './groupsNamed.js';
export { importChange, previewImport } from './preview.js';
export type {
  FieldChange,
  OtherRole,
  Preview,
  PreviewRow,
  RowPerson,
  RowProblem,
  SaidOfLines,
} from './previewRows.js';
export {
  sayColumnProblem,
  sayFault,
  sayLacking,
  sayRowProblem,
  sayUnreadable,
  sayUnreadablePaste,
} from './sayProblem.js';
export { nothingChosen } from './findTable.js';
export type { Sheet, TableChoice } from './findTable.js';
export { readBundle } from './oneRoster.js';
export { asTable, longestReadSeconds, mostColumns, mostRows, readTable } from './readTable.js';
export type { ArchiveFault, ReadTable } from './readTable.js';
