import { Check, Minus } from 'lucide-react';
import { memo } from 'react';
import type { RosterEntry } from '@jigsaw/contract/roster';
import type { Dates } from '../look/index.js';
import type { AfterCell } from './AttributeCell.js';
import { AttributeEditor } from './AttributeCell.js';
import type { ColumnSpec } from './columns.js';

interface PersonRowProps {
  readonly index: number;
  readonly top: number;
  readonly entry: RosterEntry;
  readonly columns: readonly ColumnSpec[];
  readonly dates: Dates;
  /** null: there is nothing to select. */
  readonly isSelected: boolean | null;
  readonly isCurrent: boolean;
  /** The attribute of this row that someone is changing. */
  readonly editor: {
    readonly name: string;
    readonly known: readonly string[];
    readonly onSave: (entry: RosterEntry, name: string, value: string | null) => void;
    readonly onLeave: (index: number, name: string, then: AfterCell) => void;
  } | null;
}

export const PersonRow = memo(function PersonRow({
  index,
  top,
  entry,
  columns,
  dates,
  isSelected,
  isCurrent,
  editor,
}: PersonRowProps) {
  return (
    <div
      role="row"
      data-row={index}
      aria-rowindex={index + 2}
      aria-selected={isSelected ?? undefined}
      tabIndex={isCurrent ? 0 : -1}
      style={{ transform: `translateY(${top}px)` }}
    >
      {isSelected !== null && (
        <span role="gridcell" style={{ padding: 0 }}>
          <Tick label={`Select ${entry.name}`} checked={isSelected} />
        </span>
      )}
      {columns.map((column) => (
        <span
          key={column.id}
          role={column.id === 'name' ? 'rowheader' : 'gridcell'}
          data-attribute={column.attribute?.name}
        >
          {editor !== null && column.attribute?.name === editor.name ? (
            <AttributeEditor
              label={`${editor.name} of ${entry.name}`}
              value={entry.attributes[editor.name] ?? ''}
              kind={column.attribute.kind}
              known={editor.known}
              onSave={(value) => editor.onSave(entry, editor.name, value)}
              onLeave={(then) => editor.onLeave(index, editor.name, then)}
            />
          ) : (
            column.cell(entry, dates)
          )}
        </span>
      ))}
    </div>
  );
});

interface TickProps {
  readonly label: string;
  readonly checked: boolean | 'mixed';
  /** Absent: the table hears of it. */
  readonly onPress?: () => void;
}

export const Tick = ({ label, checked, onPress }: TickProps) => (
  <button
    type="button"
    className="box"
    role="checkbox"
    aria-label={label}
    aria-checked={checked}
    onClick={onPress}
  >
    <i>
      {checked === 'mixed' ? (
        <Minus size={12} strokeWidth={3} aria-hidden="true" />
      ) : (
        checked && <Check size={12} strokeWidth={3} aria-hidden="true" />
      )}
    </i>
  </button>
);
