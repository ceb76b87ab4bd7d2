import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import { problemOf } from '../api/index.js';
import { Button, Popup, useNotice } from '../look/index.js';
import { useLazyReadBoardQuery } from '../placing/index.js';

interface RulesOfOthersProps {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly onTake: (rules: readonly DealRule[], setName: string) => void;
}

/** Rules that another set was dealt by, taken over into this one. */
export function RulesOfOthers({ board, roster, onTake }: RulesOfOthersProps) {
  const notice = useNotice();
  const [read] = useLazyReadBoardQuery();
  const others = roster.sets.filter((set) => set.id !== board.set.id);
  if (others.length === 0) return null;
  const take = async (setId: string) => {
    const answer = await read(setId, true);
    if (answer.data) onTake(answer.data.rules, answer.data.set.name);
    else notice(problemOf(answer.error).detail);
  };
  return (
    <MenuTrigger>
      <Button kind="quiet">Copy rules…</Button>
      <Popup placement="bottom end">
        <Menu aria-label="Copy the rules of" onAction={(id) => void take(String(id))}>
          {others.map((set) => (
            <MenuItem key={set.id} id={set.id}>
              {set.name}
            </MenuItem>
          ))}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
