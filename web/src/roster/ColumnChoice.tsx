import { Columns3, Pencil } from 'lucide-react';
import { useState } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { RosterView } from '@jigsaw/contract/roster';
import type { AttributeKind } from '@jigsaw/core/course';
import { Button, Choice, Field, Popup, Small, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import type { ColumnSpec, useColumnChoice } from './columns.js';
import { useChooseKindMutation } from './rosterApi.js';
import { useRosterAct } from './useRosterAct.js';
import { useAct } from '../page/index.js';

const Box = styled(Popup)`
  padding: 8px 12px;
  width: 300px;
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
    display: grid;
    gap: 8px;
    margin: 4px -6px;
    padding: 10px;
    background: var(--sunk);
    border-radius: var(--r-2);
  }
  form label {
    padding: 0;
  }
  form footer {
    display: flex;
    justify-content: flex-end;
    gap: 6px;
  }
`;

const kindWords = {
  category: 'A category',
  number: 'A number',
  'half-days': 'Free half-days',
  text: 'Any text',
} as const satisfies Record<AttributeKind, string>;
const kindChoices = Object.entries(kindWords).map(([id, label]) => ({ id: id as AttributeKind, label }));

type Attribute = RosterView['attributes'][number];

interface ColumnChoiceProps {
  readonly columns: readonly ColumnSpec[];
  readonly choice: ReturnType<typeof useColumnChoice>;
  /** null: attributes cannot be changed by the person who looks. */
  readonly attributes: RosterView['attributes'] | null;
  /** Those that someone has a value of. */
  readonly used: ReadonlySet<string>;
}

/** Which columns are shown; attributes are added here, and get other names and kinds. */
export function ColumnChoice({ columns, choice, attributes, used }: ColumnChoiceProps) {
  const { course } = useCourse();
  const notice = useNotice();
  const { act } = useRosterAct();
  const chooseKind = useAct(useChooseKindMutation());
  /** An attribute's name, or '' for one that is new. */
  const [open, setOpen] = useState<string | null>(null);
  const setKind = (name: string, kind: AttributeKind | null) =>
    chooseKind({ courseId: course.id, body: { name, kind } });
  const save = async (before: Attribute | null, name: string, kind: AttributeKind) => {
    setOpen(null);
    if (
      before &&
      before.name !== name &&
      !(await act(
        { act: 'rename-attribute', from: before.name, to: name },
        `${before.name} is called ${name} now`,
        notice,
      ))
    )
      return;
    if (!before || before.kind !== kind) await setKind(name, kind);
  };
  const form = (before: Attribute | null) => (
    <AttributeForm
      key={before?.name ?? ''}
      before={before}
      taken={attributes?.filter((each) => each !== before).map((each) => each.name) ?? []}
      isUsed={before !== null && used.has(before.name)}
      onSave={(name, kind) => void save(before, name, kind)}
      onRemove={() => {
        setOpen(null);
        if (before) void setKind(before.name, null);
      }}
      onLeave={() => setOpen(null)}
    />
  );
  return (
    <DialogTrigger onOpenChange={() => setOpen(null)}>
      <Button kind="quiet" isIconOnly aria-label="Columns">
        <Columns3 size={16} aria-hidden="true" />
      </Button>
      <Box placement="bottom end">
        <Dialog aria-label="Columns">
          {columns.slice(1).map((column) => {
            const attribute = attributes?.find((each) => each.name === column.attribute?.name) ?? null;
            if (attribute && open === attribute.name) return form(attribute);
            return (
              <div key={column.id} className="line">
                <label>
                  <input
                    type="checkbox"
                    checked={choice.isShown(column)}
                    onChange={(event) => choice.show(column, event.target.checked)}
                  />
                  {column.heading}
                </label>
                {attribute && (
                  <>
                    <Small>{kindWords[attribute.kind]}</Small>
                    <Button
                      kind="quiet"
                      isSmall
                      isIconOnly
                      aria-label={`Change ${column.heading}`}
                      onPress={() => setOpen(attribute.name)}
                    >
                      <Pencil size={13} aria-hidden="true" />
                    </Button>
                  </>
                )}
              </div>
            );
          })}
          {attributes &&
            (open === '' ? (
              form(null)
            ) : (
              <Button kind="quiet" isSmall onPress={() => setOpen('')}>
                Add an attribute…
              </Button>
            ))}
        </Dialog>
      </Box>
    </DialogTrigger>
  );
}

interface AttributeFormProps {
  readonly before: Attribute | null;
  readonly taken: readonly string[];
  readonly isUsed: boolean;
  readonly onSave: (name: string, kind: AttributeKind) => void;
  readonly onRemove: () => void;
  readonly onLeave: () => void;
}

function AttributeForm({ before, taken, isUsed, onSave, onRemove, onLeave }: AttributeFormProps) {
  const [name, setName] = useState(before?.name ?? '');
  const [kind, setKind] = useState<AttributeKind>(before?.kind ?? 'category');
  const fault = taken.includes(name.trim())
    ? `${name.trim()} is the name of another attribute here. Choose one of its own.`
    : undefined;
  const isReady = name.trim() !== '' && !fault;
  return (
    <form
      aria-label={before ? `Change ${before.name}` : 'A new attribute'}
      onSubmit={(event) => {
        event.preventDefault();
        if (isReady) onSave(name.trim(), kind);
      }}
    >
      <Field
        label={before ? `New name of ${before.name}` : 'Its name'}
        value={name}
        onChange={setName}
        maxLength={80}
        fault={fault}
        autoFocus
      />
      <Choice label="What its values are" value={kind} choices={kindChoices} onChange={setKind} />
      <footer>
        {before && !isUsed && (
          <Button kind="quiet" isSmall onPress={onRemove}>
            Remove it
          </Button>
        )}
        <Button kind="quiet" isSmall onPress={onLeave}>
          Cancel
        </Button>
        <Button kind="main" isSmall type="submit" isDisabled={!isReady}>
          {before ? 'Save' : 'Add'}
        </Button>
      </footer>
    </form>
  );
}
