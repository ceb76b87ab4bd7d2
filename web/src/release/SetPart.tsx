import type { ReactNode } from 'react';
import { TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { Input, Label, Part } from '../look/index.js';

const Narrow = styled(Part)`
  > div {
    gap: 12px;
    max-width: 640px;
  }
`;
const FigureRow = styled(TextField)`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding: 0 12px 4px;
  &[data-idle] {
    color: var(--ink-3);
  }
  input {
    width: 72px;
    text-align: right;
    font-weight: 650;
  }
`;

interface SetPartProps {
  readonly title: string;
  readonly says: string;
  readonly children: ReactNode;
}

export function SetPart({ title, says, children }: SetPartProps) {
  return (
    <Narrow>
      <header>
        <h2>{title}</h2>
        <p>{says}</p>
      </header>
      <div>{children}</div>
    </Narrow>
  );
}

interface FigureProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly isUsed: boolean;
}

/** A whole number on a line of its own. One that does not count at the moment stays, and steps back. */
export function Figure({ label, value, onChange, isUsed }: FigureProps) {
  return (
    <FigureRow
      value={value}
      onChange={onChange}
      inputMode="numeric"
      isDisabled={!isUsed}
      data-idle={!isUsed || undefined}
    >
      <Label>{label}</Label>
      <Input />
    </FigureRow>
  );
}
