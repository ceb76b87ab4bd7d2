/** PostgreSQL writes 40.00 for 40. */
export const plainDecimal = (numeric: string): string =>
  numeric.includes('.') ? numeric.replace(/\.?0+$/, '') : numeric;
export const plainDecimalOrNull = (numeric: string | null): string | null =>
  numeric === null ? null : plainDecimal(numeric);
