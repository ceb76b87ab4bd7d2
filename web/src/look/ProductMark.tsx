import { piecePath } from './emblem.js';

/** The mark: a piece that is also a room; its bottom socket is the door. */
export function ProductMark({ size }: { readonly size: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="7 -1 86 88"
      aria-hidden="true"
      style={{ fill: 'var(--ink)', flex: 'none' }}
    >
      <path d={piecePath('TFSF')} />
    </svg>
  );
}
