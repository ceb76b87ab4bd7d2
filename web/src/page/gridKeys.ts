import type { FocusEvent, KeyboardEvent } from 'react';

/** A cell of a grid; row -1 is the headings. */
export interface Spot {
  readonly row: number;
  readonly column: number;
}

/** Where a key leads; null: nowhere. */
export function after(
  { key, ctrlKey, metaKey }: KeyboardEvent,
  { row, column }: Spot,
  lastRow: number,
  lastColumn: number,
): Spot | null {
  const isFar = ctrlKey || metaKey;
  const at = (toRow: number, toColumn: number): Spot => ({
    row: Math.min(Math.max(toRow, -1), lastRow),
    column: Math.min(Math.max(toColumn, 0), lastColumn),
  });
  switch (key) {
    case 'ArrowDown':
      return at(isFar ? lastRow : row + 1, column);
    case 'ArrowUp':
      return at(isFar ? 0 : row - 1, column);
    case 'ArrowRight':
      return at(row, isFar ? lastColumn : column + 1);
    case 'ArrowLeft':
      return at(row, isFar ? 0 : column - 1);
    case 'PageDown':
      return at(row + 15, column);
    case 'PageUp':
      return at(Math.max(0, row - 15), column);
    case 'Home':
      return at(isFar ? 0 : row, 0);
    case 'End':
      return at(isFar ? lastRow : row, lastColumn);
    default:
      return null;
  }
}

export const nameOfSpot = ({ row, column }: Spot) => `${row} ${column}`;
export function focusOn(scroller: HTMLElement | null, spot: Spot): void {
  const cell = scroller?.querySelector<HTMLElement>(`[data-spot="${nameOfSpot(spot)}"]`);
  (cell?.querySelector('a') ?? cell)?.focus();
}
export function spotOf({ target }: FocusEvent): Spot | null {
  const cell = target instanceof Element ? target.closest('[data-spot]') : null;
  const [row, column] = cell?.getAttribute('data-spot')?.split(' ').map(Number) ?? [];
  return row === undefined || column === undefined ? null : { row, column };
}
