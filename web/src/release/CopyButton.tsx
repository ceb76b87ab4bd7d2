import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { Button, Popup } from '../look/index.js';

interface CopyButtonProps {
  /** To which the same could be released, too. */
  readonly sets: readonly GroupSetView[];
  /** null: a draft to write further. */
  readonly onCopy: (setId: string | null) => void;
}

const draft = 'draft';

/** The same again: to write further, or for the groups of another set. */
export function CopyButton({ sets, onCopy }: CopyButtonProps) {
  if (sets.length === 0) {
    return (
      <Button kind="quiet" onPress={() => onCopy(null)}>
        Copy activity
      </Button>
    );
  }
  return (
    <MenuTrigger>
      <Button kind="quiet">Copy activity…</Button>
      <Popup placement="bottom end">
        <Menu aria-label="Copy activity" onAction={(key) => onCopy(key === draft ? null : String(key))}>
          <MenuItem id={draft}>As a new draft</MenuItem>
          {sets.map((set) => (
            <MenuItem key={set.id} id={set.id}>
              The same for {set.name}
            </MenuItem>
          ))}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
