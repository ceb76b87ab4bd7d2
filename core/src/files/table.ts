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
  /** Where in the file it was found; absent where nothing was to be found, as in a bundle or a paste. */
  readonly place?: TablePlace;
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

/** Where in a file a table stands, and what around it was passed over. */
export interface TablePlace {
  /** Sheets of a workbook, with how many rows of each hold anything; a text file is one. */
  readonly sheets: readonly { readonly name: string; readonly rows: number }[];
  /** Counted from 0. */
  readonly sheet: number;
  /** null: it has no headings. */
  readonly headingLine: number | null;
  /** The first rows of the sheet, any of which may hold the headings. */
  readonly firstRows: readonly { readonly line: number; readonly text: string }[];
  readonly skipped: readonly {
    readonly line: number;
    readonly because: SkippedBecause;
    readonly text: string;
  }[];
}

/** Why a row or a line is no person: of a table the first four, of a pasted list the others.
 * beside: words behind a person whose name stands before their address. */
export type SkippedBecause =
  'above-headings' | 'headings-again' | 'total' | 'band' | 'signature' | 'words' | 'beside';
