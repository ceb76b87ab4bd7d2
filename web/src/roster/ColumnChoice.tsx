import { Columns3, Pencil } from 'lucide-react';
import { useState } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { Button, Input, Popup, useNotice } from '../look/index.js';
import type { ColumnSpec, useColumnChoice } from './columns.js';
import { useRosterAct } from './useRosterAct.js';

const Box = styled(Popup)`
  padding: 8px 12px;
  min-width: 240px;
  .line {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    min-height: 28px;
  }
  label {
    display: flex;
    flex: 1;
    gap: 8px;
    align-items: center;
    padding: 3px 0;
    cursor: pointer;
  }
  form {
    padding: 2px 0;
  }
`;

interface ColumnChoiceProps {
  readonly columns: readonly ColumnSpec[];
  readonly choice: ReturnType<typeof useColumnChoice>;
  /** null: attributes cannot be renamed by whoever looks. */
  readonly entries: readonly RosterEntry[] | null;
}

/** Which columns are shown; attributes get other names here. */
export function ColumnChoice({ columns, choice, entries }: ColumnChoiceProps) {
  const { act } = useRosterAct();
  const notice = useNotice();
  const [renaming, setRenaming] = useState<string | null>(null);
  const rename = (from: string, to: string) => {
    setRenaming(null);
    if (!entries || to === '' || to === from) return;
    if (columns.some((column) => column.id === `attribute:${to}`)) return notice(`${to} is the name of another attribute here. Choose one of its own.`);
    const edits = entries.flatMap((entry) => {
      const value = entry.attributes[from];
      if (value === undefined) return [];
      return [
        {
          enrolmentId: entry.enrolmentId,
          from: { attributes: { [from]: value, [to]: entry.attributes[to] ?? null } },
          to: { attributes: { [from]: null, [to]: value } },
        },
      ];
    });
    if (edits.length > 0) void act({ act: 'edit', edits }, `${from} is called ${to} now`);
  };
  return (
    <DialogTrigger>
      <Button kind="quiet" isIconOnly aria-label="Columns">
        <Columns3 size={16} aria-hidden="true" />
      </Button>
      <Box placement="bottom end">
        <Dialog aria-label="Columns">
          {columns.slice(1).map((column) =>
            renaming === column.heading ? (
              <RenameForm key={column.id} name={column.heading} onRename={(to) => rename(column.heading, to)} />
            ) : (
              <div key={column.id} className="line">
                <label>
                  <input type="checkbox" checked={choice.isShown(column)} onChange={(event) => choice.show(column, event.target.checked)} />
                  {column.heading}
                </label>
                {entries && column.id.startsWith('attribute:') && (
                  <Button kind="quiet" isSmall isIconOnly aria-label={`Rename ${column.heading}`} onPress={() => setRenaming(column.heading)}>
                    <Pencil size={13} aria-hidden="true" />
                  </Button>
                )}
              </div>
            ),
          )}
        </Dialog>
      </Box>
    </DialogTrigger>
  );
}

function RenameForm({ name, onRename }: { readonly name: string; readonly onRename: (to: string) => void }) {
  const [to, setTo] = useState(name);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onRename(to.trim());
      }}
    >
      <Input
        aria-label={`New name of ${name}`}
        value={to}
        onChange={(event) => setTo(event.target.value)}
        onBlur={() => onRename(name)}
        maxLength={80}
        autoFocus
      />
    </form>
  );
}
