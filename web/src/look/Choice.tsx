import { ChevronDown } from 'lucide-react';
import { Button, ListBox, ListBoxItem, Select, SelectValue } from 'react-aria-components';
import { styled } from 'styled-components';
import { Label } from './controls.js';
import { Spoken } from './layout.js';
import { Popup } from './Popup.js';

const Frame = styled(Select)`
  display: grid;
  gap: 4px;
  min-width: 0;
  &[data-bare] {
    gap: 0;
  }
  > button {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    height: var(--ctl);
    padding: 0 9px;
    border: 1px solid var(--edge);
    border-radius: var(--r-2);
    background: var(--surface);
    font: 600 13px/1 var(--font-text);
    cursor: pointer;
    min-width: 0;
    text-align: left;
  }
  > button > :first-child {
    min-width: 0;
    line-height: 20px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

interface ChoiceProps<Id extends string> {
  readonly label: string;
  readonly isLabelHidden?: boolean;
  readonly value: Id | null;
  readonly choices: readonly { readonly id: Id; readonly label: string }[];
  readonly onChange: (value: Id) => void;
  readonly placeholder?: string;
}

/** One of a few. */
export function Choice<Id extends string>({
  label,
  isLabelHidden,
  value,
  choices,
  onChange,
  placeholder,
}: ChoiceProps<Id>) {
  return (
    <Frame
      data-bare={isLabelHidden || undefined}
      value={value}
      onChange={(key) => key !== null && onChange(key as Id)}
      placeholder={placeholder}
    >
      <Label>{isLabelHidden ? <Spoken>{label}</Spoken> : label}</Label>
      <Button>
        <SelectValue />
        <ChevronDown size={15} aria-hidden="true" />
      </Button>
      <Popup>
        <ListBox items={choices}>
          {(choice) => <ListBoxItem id={choice.id}>{choice.label}</ListBoxItem>}
        </ListBox>
      </Popup>
    </Frame>
  );
}
