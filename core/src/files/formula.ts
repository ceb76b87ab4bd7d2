/** What a spreadsheet would run when it opens a file, quoted any number of times. */
const runnable = /^'*[=+\-@\t\r＝＋－＠]/;

/** A cell on its way into a file: what would be run gets a sign before it, and so does what has one already. */
export const guardFormula = (cell: string): string => (runnable.test(cell) ? `'${cell}` : cell);

/** The cell as it was before `guardFormula`. */
export const unguardFormula = (cell: string): string =>
  cell.startsWith("'") && runnable.test(cell) ? cell.slice(1) : cell;
