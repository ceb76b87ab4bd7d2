import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { Menu, MenuItem, MenuTrigger, Separator } from 'react-aria-components';
import { useNavigate, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { movesOut } from '@jigsaw/core/placing';
import { Button, Popup } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { CopySheet, useFreezeGroupSetMutation, useArchiveGroupSetMutation, SetSheet } from '../sets/index.js';
import { GroupFileSheet } from './GroupFileSheet.js';
import { GroupsSheet } from './GroupsSheet.js';
import { LeadsSheet } from './LeadsSheet.js';
import { TopicsSheet } from './TopicsSheet.js';
import type { ExpertActs } from './useExperts.js';
import type { BoardActs } from './useBoard.js';
import { counted } from '@jigsaw/core/text';
import { apiAddress } from '../api/index.js';
import { useAct, useCopy } from '../page/index.js';

const Line = styled(Separator)`
  border-top: var(--hair);
  margin: 4px 6px;
`;

interface SetMenuProps {
  readonly board: BoardView;
  readonly acts: BoardActs;
  readonly experts: ExpertActs | null;
  readonly onDeal: () => void;
}

/** What is done with the set as a whole. */
export function SetMenu({ board, acts, experts, onDeal }: SetMenuProps) {
  const [params, setParams] = useSearchParams();
  const navigate = useNavigate();
  const [open, setOpen] = useState<'settings' | 'groups' | 'topics' | 'leads' | 'copy' | 'file' | null>(
    params.has('file') ? 'file' : null,
  );
  const { course } = useCourse();
  const { set } = board;
  const copy = useCopy();
  const isFrozen = set.frozenAt !== null;
  const isLocked = new Set(board.groups.filter((group) => group.isLocked).map((group) => group.id));
  const out = movesOut(acts.placement, acts.placement.keys(), (groupId) => !isLocked.has(groupId));
  const seated = new Set(out.map((move) => move.student)).size;
  const freeze = useAct(useFreezeGroupSetMutation(), {
    says: (_set, asked) =>
      asked.isFrozen ? `${set.name} frozen: students stay where they are` : `${set.name} can change again`,
    inverse: (asked) => ({ ...asked, isFrozen: !asked.isFrozen }),
  });
  const archive = useAct(useArchiveGroupSetMutation(), {
    says: (_set, asked) =>
      asked.isArchived ? `${set.name} archived. Its rooms, work and marks are kept.` : `${set.name} restored`,
    undo: (_set, asked) => () => setAside(!asked.isArchived),
  });
  const removeAll = () =>
    acts.carry({ moves: out }, `${counted(seated, 'student')} removed from ${set.name}`);
  const setAside = async (isArchived: boolean) => {
    if (await archive({ setId: set.id, isArchived }))
      void navigate(isArchived ? `/c/${course.id}/groups` : `/c/${course.id}/groups/${set.id}`);
  };
  const does: Readonly<Record<string, () => void>> = {
    settings: () => setOpen('settings'),
    groups: () => setOpen('groups'),
    topics: () => setOpen('topics'),
    again: () => experts?.cutAgain(),
    leads: () => setOpen('leads'),
    freeze: () => void freeze({ setId: set.id, isFrozen: !isFrozen }),
    deal: onDeal,
    file: () => setOpen('file'),
    out: removeAll,
    copy: () => setOpen('copy'),
    lists: () => void navigate('lists'),
    rules: () => void navigate('deal'),
    link: () =>
      void copy(
        `${window.location.origin}/c/${course.id}/go/set/${set.id}`,
        'Link copied. It leads each student to their own room.',
        'Copy the address of this page, with “go/set” in place of “groups”.',
      ),
    away: () => void setAside(true),
  };
  const close = () => {
    setOpen(null);
    if (params.has('file')) setParams({}, { replace: true }); // asked for once, by the person who created the set
  };
  return (
    <>
      <MenuTrigger>
        <Button kind="quiet">
          Set
          <ChevronDown size={14} aria-hidden="true" />
        </Button>
        <Popup placement="bottom end">
          <Menu
            aria-label={set.name}
            disabledKeys={seated === 0 ? ['out'] : []}
            onAction={(key) => does[key]?.()}
          >
            <MenuItem id="settings">Set settings…</MenuItem>
            <MenuItem id="groups">Edit groups…</MenuItem>
            <MenuItem id="leads">Who leads which group…</MenuItem>
            <MenuItem id="freeze">
              {isFrozen ? 'Unfreeze: let students move again' : 'Freeze: keep students where they are'}
            </MenuItem>
            <Line />
            {experts ? (
              <>
                <MenuItem id="topics">Topics and tables…</MenuItem>
                <MenuItem id="again">Deal the tables again</MenuItem>
              </>
            ) : (
              <>
                <MenuItem id="rules">Deal by rules…</MenuItem>
                <MenuItem id="deal">Deal at random or in order…</MenuItem>
              </>
            )}
            <MenuItem id="file">Import groups…</MenuItem>
            <MenuItem id="out">Remove everyone{isLocked.size > 0 ? ' except in locked groups' : ''}</MenuItem>
            <Line />
            <MenuItem id="copy">Copy set…</MenuItem>
            <MenuItem id="link">Copy link for students</MenuItem>
            <MenuItem id="lists">Print lists…</MenuItem>
            <MenuItem id="csv" href={apiAddress(`sets/${set.id}/groups.csv`)} download="groups.csv">
              Export groups as CSV
            </MenuItem>
            <Line />
            <MenuItem id="away">Archive set</MenuItem>
          </Menu>
        </Popup>
      </MenuTrigger>
      {open === 'settings' && <SetSheet set={set} onClose={close} />}
      {open === 'groups' && <GroupsSheet board={board} onClose={close} />}
      {open === 'topics' && <TopicsSheet board={board} onClose={close} />}
      {open === 'leads' && <LeadsSheet board={board} onClose={close} />}
      {open === 'copy' && <CopySheet set={set} onClose={close} />}
      {open === 'file' && <GroupFileSheet board={board} onPlace={acts.carry} onClose={close} />}
    </>
  );
}
