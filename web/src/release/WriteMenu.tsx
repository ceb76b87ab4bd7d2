import { PenLine } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { styled } from 'styled-components';
import { kinds } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { Button, Small } from '../look/index.js';

const List = styled(Popover)`
  width: 360px;
  padding: 5px;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  [role='menu'] {
    outline: none;
  }
  [role='menuitem'] {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr);
    gap: 2px 10px;
    padding: 8px 10px;
    border-radius: var(--r-1);
    cursor: pointer;
    outline-offset: -2px;
  }
  [role='menuitem'] > :last-child {
    grid-column: 2;
  }
  [data-focused] {
    background: var(--wash-2);
  }
  b {
    font-weight: 620;
  }
`;

/** What to write, each kind with what it is for. */
export function WriteMenu({ isDisabled, onChoose }: { readonly isDisabled: boolean; readonly onChoose: (kind: KindOnPages) => void }) {
  return (
    <MenuTrigger>
      <Button kind="main" isDisabled={isDisabled}>
        <PenLine size={16} aria-hidden="true" />
        Write…
      </Button>
      <List placement="bottom end">
        <Menu aria-label="What to write" onAction={(name) => onChoose(kinds.find((kind) => kind.name === name)!)}>
          {kinds.map((kind) => (
            <MenuItem key={kind.name} id={kind.name} textValue={kind.word}>
              <kind.icon size={19} aria-hidden="true" />
              <b>{kind.word}</b>
              <Small>{kind.says}</Small>
            </MenuItem>
          ))}
        </Menu>
      </List>
    </MenuTrigger>
  );
}
