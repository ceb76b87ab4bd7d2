import { useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import type { AttributeKind } from '@jigsaw/core/course';
import { fitsKind, readHalfDays, writeHalfDays } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import { Popup, Small, Spoken } from '../look/index.js';
import { HalfDayGrid, HalfDayMarks } from './HalfDays.js';

const Unfit = styled.span`
  text-decoration: underline dotted var(--attn-line) 2px;
  text-underline-offset: 3px;
`;
const CellInput = styled.input`
  width: 100%;
  height: 24px;
  padding: 0 6px;
  margin: 0 -7px;
  border: 1px solid var(--ink);
  border-radius: var(--r-1);
  background: var(--surface);
  color: var(--ink);
  font: inherit;
  outline-offset: 0;
  &[aria-invalid] {
    border-color: var(--attn-line);
  }
`;
const Box = styled(Popup)`
  padding: 12px;
  [role='dialog'] {
    display: grid;
    gap: 10px;
    outline: none;
  }
`;

const unfitWords: Readonly<Record<AttributeKind, string>> = {
  number: 'not a number',
  'half-days': 'not half-days; write them like Mon am, Tue',
  category: '',
  text: '',
};

/** One value as what its attribute is; what does not fit is marked, and left as it is. */
export function AttributeValue({
  value,
  kind,
}: {
  readonly value: string | undefined;
  readonly kind: AttributeKind;
}) {
  if (value === undefined) return null;
  if (!fitsKind(value, kind)) {
    return (
      <Unfit title={unfitWords[kind]}>
        {value}
        <Spoken>, {unfitWords[kind]}</Spoken>
      </Unfit>
    );
  }
  return kind === 'half-days' ? <HalfDayMarks free={sure(readHalfDays(value))} /> : <>{value}</>;
}

/** Where someone goes on after a cell: down the column, along the row, back to the row, or where they pressed. */
export type AfterCell = 'below' | 'next' | 'before' | 'row' | 'elsewhere';

interface AttributeEditorProps {
  readonly label: string;
  readonly value: string;
  readonly kind: AttributeKind;
  /** What others have here, to choose from. */
  readonly known: readonly string[];
  /** null: it is removed. */
  readonly onSave: (value: string | null) => void;
  readonly onLeave: (then: AfterCell) => void;
}

export function AttributeEditor({ kind, ...props }: AttributeEditorProps) {
  return kind === 'half-days' ? <HalfDayEditor {...props} /> : <TextEditor kind={kind} {...props} />;
}

function TextEditor({ label, value, kind, known, onSave, onLeave }: AttributeEditorProps) {
  const [text, setText] = useState(value);
  const isLeft = useRef(false);
  const isUnfit = text.trim() !== '' && !fitsKind(text.trim(), kind);
  const leave = (then: AfterCell, isKept: boolean) => {
    if (isLeft.current) return;
    isLeft.current = true;
    const next = text.trim();
    if (isKept && !isUnfit && next !== value) onSave(next === '' ? null : next);
    onLeave(then);
  };
  const onKey = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Escape') leave('row', false);
    else if (isUnfit && (event.key === 'Enter' || event.key === 'Tab')) event.preventDefault();
    else if (event.key === 'Enter') leave('below', true);
    else if (event.key === 'Tab') {
      event.preventDefault();
      leave(event.shiftKey ? 'before' : 'next', true);
    }
  };
  return (
    <>
      <CellInput
        aria-label={label}
        aria-invalid={isUnfit || undefined}
        title={isUnfit ? unfitWords[kind] : undefined}
        value={text}
        list={kind === 'category' ? 'attribute-values' : undefined}
        maxLength={200}
        inputMode={kind === 'number' ? 'decimal' : undefined}
        autoFocus
        onFocus={(event) => event.target.select()}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => leave('elsewhere', true)}
        onKeyDown={onKey}
        onClick={(event) => event.stopPropagation()}
      />
      {kind === 'category' && (
        <datalist id="attribute-values">
          {known.map((each) => (
            <option key={each} value={each} />
          ))}
        </datalist>
      )}
    </>
  );
}

function HalfDayEditor({ label, value, onSave, onLeave }: Omit<AttributeEditorProps, 'kind'>) {
  const [free, setFree] = useState(() => readHalfDays(value) ?? new Set<never>());
  const anchor = useRef<HTMLSpanElement>(null);
  const close = () => {
    const next = writeHalfDays(free);
    const before = readHalfDays(value);
    if (before === null ? free.size > 0 : next !== writeHalfDays(before)) onSave(next);
    onLeave('row');
  };
  return (
    // What happens in the box is not the row's.
    <span
      ref={anchor}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => event.stopPropagation()}
    >
      <HalfDayMarks free={free} />
      <Box isOpen triggerRef={anchor} placement="bottom start" onOpenChange={(isOpen) => !isOpen && close()}>
        <Dialog aria-label={label}>
          <HalfDayGrid free={free} onChange={setFree} />
          <Small>Filled is free. Escape or a press outside keeps it.</Small>
        </Dialog>
      </Box>
    </span>
  );
}
