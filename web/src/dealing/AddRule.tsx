import { Plus } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import { Button, Popup } from '../look/index.js';
import { rulesOffered } from './ruleKinds.js';

export function AddRule({
  board,
  roster,
  onAdd,
}: {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly onAdd: (rule: DealRule) => void;
}) {
  const rules = rulesOffered(board, roster);
  return (
    <MenuTrigger>
      <Button>
        <Plus size={15} aria-hidden="true" />
        Add a rule
      </Button>
      <Popup placement="bottom end">
        <Menu
          aria-label="Rules"
          disabledKeys={rules.flatMap((each) => (each.rule ? [] : [each.id]))}
          onAction={(key) => {
            const rule = rules.find((each) => each.id === key)?.rule;
            if (rule) onAdd(rule);
          }}
        >
          {rules.map((each) => (
            <MenuItem key={each.id} id={each.id}>
              {each.says}
            </MenuItem>
          ))}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
