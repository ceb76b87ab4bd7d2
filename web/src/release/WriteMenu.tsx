import { PenLine } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { sure } from '@jigsaw/core/lists';
import { kinds } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { Button, Popup, Small } from '../look/index.js';

const List = styled(Popup)`
  width: 360px;
  [role='menuitem'] {
    grid-template-columns: 24px minmax(0, 1fr);
    gap: 2px 10px;
    padding: 8px 10px;
  }
  [role='menuitem'] > :last-child {
    grid-column: 2;
  }
  b {
    font-weight: 620;
  }
`;

/** The kinds of activity, each with what it is for. */
export function WriteMenu({
  isDisabled,
  onChoose,
}: {
  readonly isDisabled: boolean;
  readonly onChoose: (kind: KindOnPages) => void;
}) {
  return (
    <MenuTrigger>
      <Button kind="main" isDisabled={isDisabled}>
        <PenLine size={16} aria-hidden="true" />
        New activity
      </Button>
      <List placement="bottom end">
        <Menu
          aria-label="Kind of activity"
          onAction={(name) => onChoose(sure(kinds.find((kind) => kind.name === name)))}
        >
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
