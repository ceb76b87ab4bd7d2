import { ChevronDown } from 'lucide-react';
import { Button, ComboBox, Group, Input, Label, ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import { Popup } from '../look/index.js';

const Frame = styled(ComboBox)`
  display: grid;
  gap: 4px;
  > label {
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
  }
  > [role='group'] {
    display: flex;
    height: var(--ctl);
    border: 1px solid var(--edge);
    border-radius: var(--r-2);
    background: var(--surface);
  }
  > [role='group'][data-focus-within] {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  input {
    flex: 1;
    min-width: 0;
    border: 0;
    outline: 0;
    background: none;
    padding: 0 9px;
  }
  button {
    width: 32px;
    border: 0;
    background: none;
    display: grid;
    place-items: center;
    cursor: pointer;
  }
  small {
    font: var(--t-12);
    color: var(--ink-2);
  }
`;

const zones = [
  ...new Set([
    'UTC',
    Intl.DateTimeFormat().resolvedOptions().timeZone,
    ...Intl.supportedValuesOf('timeZone'),
  ]),
]
  .sort()
  .map((id) => ({ id }));

/** Any part of its name finds a zone; only one of the list is taken. */
export function TimeZoneField({
  value,
  onChange,
}: {
  readonly value: string;
  readonly onChange: (zone: string) => void;
}) {
  return (
    <Frame
      value={value}
      onChange={(key) => key !== null && onChange(String(key))}
      defaultItems={zones}
      menuTrigger="focus"
    >
      <Label>Time zone</Label>
      <Group>
        <Input />
        <Button>
          <ChevronDown size={15} aria-hidden="true" />
        </Button>
      </Group>
      <small>Due dates use this time zone</small>
      <Popup>
        <ListBox>
          {(zone: (typeof zones)[number]) => <ListBoxItem id={zone.id}>{zone.id}</ListBoxItem>}
        </ListBox>
      </Popup>
    </Frame>
  );
}
