import { useState } from 'react';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { WhatChanges } from '../foreseen/index.js';
import { Button, Choice, Muted, Sheet } from '../look/index.js';
import type { BoardActs } from './useBoard.js';

interface PlanMoveSheetProps {
  readonly board: BoardView;
  readonly acts: BoardActs;
  readonly onClose: () => void;
}

/** What moving those who are selected would change in what they see, before it is done. */
export function PlanMoveSheet({ board: { set, groups, students }, acts, onClose }: PlanMoveSheetProps) {
  const [chosen, setChosen] = useState<string | null>(null);
  const group = groups.find(({ id }) => id === chosen) ?? null;
  const who = students.filter(({ enrolmentId }) => acts.selected.has(enrolmentId));
  const { moves } = acts.placeOf(acts.selected, group?.id ?? null);
  const name = who.length === 1 ? sure(who[0]).name : counted(who.length, 'student');
  return (
    <Sheet title={`If ${name} moved`} onClose={onClose}>
      <Choice
        label="To"
        value={chosen ?? ''}
        choices={[
          { id: '', label: 'Choose a group' },
          ...groups.map((each) => ({ id: each.id, label: each.name })),
        ]}
        onChange={(id) => setChosen(id === '' ? null : id)}
      />
      {group === null ? (
        <Muted>Choose a group to see what changes.</Muted>
      ) : moves.length === 0 ? (
        <Muted>No one would move.</Muted>
      ) : (
        <WhatChanges planned={{ act: 'place', setId: set.id, moves: [...moves] }} />
      )}
      <footer>
        <Button
          kind="main"
          isDisabled={group === null || moves.length === 0}
          onPress={() => {
            if (group) acts.send(acts.selected, group.id);
            onClose();
          }}
        >
          {group ? `Move to ${group.name}` : 'Move'}
        </Button>
        <Button onPress={onClose}>Keep as it is</Button>
      </footer>
    </Sheet>
  );
}
