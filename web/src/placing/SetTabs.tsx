import { ChevronDown, Layers, Lock, Plus, Redo2, Scale, Undo2 } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { Role } from '@jigsaw/contract/common';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { Button, Key, Popup, Small } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListGroupSetsQuery } from '../sets/index.js';
import { SetMenu } from './SetMenu.js';
import type { ExpertActs } from './useExperts.js';
import type { BoardActs } from './useBoard.js';
import { counted } from '@jigsaw/core/text';

const SetBar = styled.div`
  display: flex;
  align-items: center;
  gap: var(--s-3);
  min-height: var(--bar);
  padding-right: var(--s-4);
  border-bottom: var(--hair);
  nav {
    display: flex;
    align-self: stretch;
    min-width: 0;
    overflow-x: auto;
    /* Tabs that go on fade out, and do not look cut. */
    padding-right: 28px;
    mask-image: linear-gradient(to right, #000 calc(100% - 28px), transparent);
  }
  nav a {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 0 var(--s-4);
    text-decoration: none;
    color: var(--ink-2);
    border-right: var(--hair);
    white-space: nowrap;
    outline-offset: -3px;
  }
  nav b {
    font: var(--h-14);
  }
  nav a[aria-current] {
    background: var(--surface);
    color: var(--ink);
    box-shadow: inset 0 -2px var(--ink);
  }
  nav a[aria-current] b {
    font: var(--h-17);
  }
  > button {
    flex: none;
  }
  .grow {
    flex: 1;
  }
`;

export function SetTabs({
  board,
  acts,
  experts,
  onDeal,
}: {
  readonly board: BoardView;
  readonly acts: BoardActs;
  /** Of expert tables, what is done with them in place of a deal; null: they are none. */
  readonly experts: ExpertActs | null;
  readonly onDeal: () => void;
}) {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  const { unplaced } = board.set;
  const navigate = useNavigate();
  const mayPlace = course.role === 'instructor' || course.role === 'assistant';
  return (
    <SetBar>
      <nav aria-label="Group sets">
        {(sets.data?.sets ?? [board.set]).map((set) => (
          <Link
            key={set.id}
            ref={set.id === board.set.id ? intoView : undefined}
            to={`../groups/${set.id}`}
            aria-current={set.id === board.set.id ? 'page' : undefined}
          >
            <b>{set.name}</b>
            {set.frozenAt && <Lock size={13} aria-label="Frozen" />}
            <Small>{sayGroupsOf(set)}</Small>
          </Link>
        ))}
        {course.role === 'instructor' && (
          <Link to="../groups/new" aria-label="New group set">
            <Plus size={16} aria-hidden="true" />
          </Link>
        )}
      </nav>
      {(sets.data?.sets.length ?? 0) >= manySets && <AllSets sets={sets.data?.sets ?? []} />}
      <span className="grow" />
      <Button
        kind="quiet"
        isDisabled={!acts.canUndo}
        onPress={acts.undo}
        aria-label={acts.canUndo ? `Undo: ${acts.canUndo.says}` : 'Undo'}
      >
        <Undo2 size={16} aria-hidden="true" />
        Undo
        <Key aria-hidden="true">Z</Key>
      </Button>
      <Button
        kind="quiet"
        isIconOnly
        isDisabled={!acts.canRedo}
        onPress={acts.redo}
        aria-label={acts.canRedo ? `Redo: ${acts.canRedo.says}` : 'Redo'}
      >
        <Redo2 size={16} aria-hidden="true" />
      </Button>
      {course.role === 'instructor' && <SetMenu {...{ board, acts, experts, onDeal }} />}
      {mayPlace && experts && (
        <Button kind="main" isDisabled={experts.isWorking} onPress={experts.rebalance}>
          <Scale size={16} aria-hidden="true" />
          {experts.isWorking ? 'Working out…' : 'Rebalance'}
        </Button>
      )}
      {mayPlace && !experts && board.groups.length > 0 && board.students.length > 0 && (
        <Button
          kind="main"
          onPress={() => (isByRules(board.set, course.role) ? void navigate('deal') : onDeal())}
        >
          <Layers size={16} aria-hidden="true" />
          Deal {counted(unplaced > 0 ? unplaced : board.students.length, 'student')}…
        </Button>
      )}
    </SetBar>
  );
}

/** Of so many, some tabs are out of sight. */
const manySets = 5;

/** Every set by name, to be found by typing its first letters. */
function AllSets({ sets }: { readonly sets: readonly GroupSetView[] }) {
  const navigate = useNavigate();
  return (
    <MenuTrigger>
      <Button kind="quiet" aria-label={`All ${sets.length} group sets`}>
        {sets.length} sets
        <ChevronDown size={14} aria-hidden="true" />
      </Button>
      <Popup placement="bottom end">
        <Menu aria-label="All group sets" onAction={(key) => void navigate(`../groups/${key}`)}>
          {sets.map((set) => (
            <MenuItem key={set.id} id={set.id} textValue={set.name}>
              {set.name} <Small>{sayGroupsOf(set)}</Small>
            </MenuItem>
          ))}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}

/** “12 groups of 4” */
function sayGroupsOf({ groupCount, isSynchronised, capacity, isFormedAtHandIn }: GroupSetView): string {
  if (isSynchronised) return `${groupCount} sections`;
  return capacity === null || isFormedAtHandIn
    ? `${groupCount} groups`
    : `${groupCount} groups of ${capacity}`;
}

/** Rules place everyone once, and are the course's: only instructors change them. */
const isByRules = (set: BoardView['set'], role: Role) => set.isExclusive && role === 'instructor';

/** Of many sets, the one that is open is not out of sight. */
const intoView = (tab: HTMLElement | null) => {
  // Once the frame is laid out anyway; without a layout there is nothing to scroll.
  requestAnimationFrame(() =>
    (tab as Partial<HTMLElement> | null)?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' }),
  );
};
