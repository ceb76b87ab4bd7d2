import { useState } from 'react';
import type { ImportPreview } from '@jigsaw/contract/import';
import { Button } from '../look/index.js';

interface MendFormProps {
  readonly line: number;
  readonly cells: readonly string[];
  /** Which cell is at fault, and so where the reader begins; null: none in particular. */
  readonly faultyCell: number | null;
  readonly columns: ImportPreview['columns'];
  readonly onUse: (cells: string[]) => void;
  readonly onLeave: () => void;
}

/** One row's cells, to be put right here; the file itself stays as it is. */
export function MendForm({ line, cells, faultyCell, columns, onUse, onLeave }: MendFormProps) {
  const [draft, setDraft] = useState(() => columns.map((_, at) => cells[at] ?? ''));
  return (
    <form
      aria-label={`Line ${line}`}
      onKeyDown={(event) => event.key === 'Escape' && onLeave()}
      onSubmit={(event) => {
        event.preventDefault();
        onUse(draft);
      }}
    >
      {columns.map(
        (column, at) =>
          column.meaning !== 'left-out' && (
            <label key={at}>
              {column.heading}
              <input
                value={draft[at]}
                autoFocus={at === (faultyCell ?? 0)}
                aria-invalid={at === faultyCell || undefined}
                onChange={(event) =>
                  setDraft(draft.map((each, index) => (index === at ? event.target.value : each)))
                }
              />
            </label>
          ),
      )}
      <Button kind="main" isSmall type="submit">
        Use this
      </Button>
      <Button kind="quiet" isSmall onPress={onLeave}>
        Cancel
      </Button>
    </form>
  );
}
