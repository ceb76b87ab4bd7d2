import { UserX } from 'lucide-react';
import { Emblem, useFontsOf } from '../look/index.js';
import type { SightColumn } from './columns.js';

interface ColumnHeadProps {
  readonly column: SightColumn;
  readonly index: number;
  readonly left: number;
  readonly width: number;
  readonly isTurned: boolean;
}

/** Who a column stands for. */
export function ColumnHead({ column: { of, number, name }, index, left, width, isTurned }: ColumnHeadProps) {
  useFontsOf(name);
  return (
    <div
      role="columnheader"
      aria-colindex={index + 2}
      title={name}
      data-turned={isTurned || undefined}
      style={{ left, width }}
    >
      {number !== null && <Emblem number={number} size={32} />}
      {of.kind === 'unplaced' && <UserX size={22} aria-hidden="true" />}
      <span>
        <bdi>{name}</bdi>
      </span>
    </div>
  );
}
