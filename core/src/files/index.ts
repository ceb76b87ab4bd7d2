export { decode } from './decode.js';
export type { Decoded, Encoding } from './decode.js';
export { guardFormula, unguardFormula } from './formula.js';
export { delimiters } from './table.js';
export type { BundleClass, Delimiter, SkippedBecause, Table, TablePlace, TableRow } from './table.js';
