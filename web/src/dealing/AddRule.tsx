import { Plus } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import { Button, Popup } from '../look/index.js';
import type { Kind } from './RuleSentence.js';

/** Rules that this class allows: an attribute of the kind, two people, an earlier set. */
export function AddRule({
  board,
  roster,
  onAdd,
}: {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly onAdd: (rule: DealRule) => void;
}) {
  const first = (...kinds: Kind[]) => board.attributes.find((attribute) => kinds.includes(attribute.kind));
  const measured = first('category', 'number');
  const category = first('category');
  const time = first('half-days');
  // The set of most groups says most about who knows whom.
  const [earlier] = roster.sets
    .filter((set) => set.id !== board.set.id && set.groups.length > 0)
    .sort((a, b) => b.groups.length - a.groups.length);
  const hasPair = board.students.length > 1;
  const as = measured?.kind === 'number' ? 'number' : 'category';
  const rules: readonly { readonly id: string; readonly says: string; readonly rule: DealRule | null }[] = [
    {
      id: 'spread',
      says: 'Spread an attribute evenly',
      rule: measured ? { kind: 'spread', attribute: measured.name, as } : null,
    },
    {
      id: 'nobody-alone',
      says: 'Nobody alone of their kind',
      rule: category ? { kind: 'nobody-alone', attribute: category.name } : null,
    },
    {
      id: 'common-time',
      says: 'Free time in common',
      rule: time ? { kind: 'common-time', attribute: time.name, wanted: 1 } : null,
    },
    {
      id: 'fresh',
      says: 'Not with earlier teammates',
      rule: earlier ? { kind: 'fresh', setIds: [earlier.id] } : null,
    },
    {
      id: 'alike',
      says: 'Alike together',
      rule: measured ? { kind: 'alike', attribute: measured.name, as } : null,
    },
    { id: 'apart', says: 'Keep people apart', rule: hasPair ? { kind: 'apart', students: [] } : null },
    {
      id: 'together',
      says: 'Keep people together',
      rule: hasPair ? { kind: 'together', students: [] } : null,
    },
  ];
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
