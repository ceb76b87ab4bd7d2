import type { Encoding } from './decode.js';

export const delimiters = [',', ';', '\t', '|'] as const;
export type Delimiter = (typeof delimiters)[number];

export interface TableRow {
  /** Line of the file on which the row starts, counted from 1. */
  readonly line: number;
  readonly cells: readonly string[];
}

export interface Table {
  readonly headings: readonly string[];
  readonly hasHeader: boolean;
  readonly rows: readonly TableRow[];
  readonly encoding: Encoding;
  /** What parts the cells; of a spreadsheet or a bundle, what it was. */
  readonly delimiter: Delimiter | 'spreadsheet' | 'bundle';
  /** The classes of a bundle by the names they have in its rows, in its order. */
  readonly classes?: readonly BundleClass[];
}

export interface BundleClass {
  /** The group set that it is a group of; null: it is a section of the registrar's. */
  readonly set: string | null;
  /** Unlike any other of its set in this bundle. */
  readonly title: string;
  /** What the registrar knows it by, whatever it is called. */
  readonly sourceId: string;
}
