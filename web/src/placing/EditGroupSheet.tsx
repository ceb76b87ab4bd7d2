import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import type { BoardGroup, GroupDetails } from '@jigsaw/contract/sets';
import type { BoardView } from '@jigsaw/contract/placing';
import { ProblemStrip } from '../api/index.js';
import { Button, Field, Sheet, Small } from '../look/index.js';
import { DetailFields } from './DetailFields.js';
import { useEditGroupMutation } from './placingApi.js';
import { Tickbox } from '../sets/index.js';

export function EditGroupSheet({
  board,
  group,
  onClose,
}: {
  readonly board: BoardView;
  readonly group: BoardGroup;
  readonly onClose: () => void;
}) {
  const [name, setName] = useState(group.name);
  const [isLocked, setLocked] = useState(group.isLocked);
  const [places, setPlaces] = useState(group.capacity === null ? '' : String(group.capacity));
  const [details, setDetails] = useState(group.details);
  const put = (part: Partial<GroupDetails>) => setDetails({ ...details, ...part });
  const [edit, { error, isLoading }] = useEditGroupMutation();
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await edit({
      groupId: group.id,
      body: {
        name,
        capacity: places === '' ? null : Number(places),
        isLocked,
        ...(board.set.signUp && { details }),
        version: group.version,
      },
    });
    if (!('error' in answer) || answer.error === undefined) onClose();
  };
  return (
    <Sheet title={`Edit ${group.name}`} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)} style={{ display: 'grid', gap: 12 }}>
        <Field label="Name, shown everywhere at once" value={name} onChange={setName} autoFocus />
        <Field
          label="Places in this group"
          inputMode="numeric"
          value={places}
          onChange={(value) => setPlaces(value.replace(/\D/g, ''))}
          hint={
            board.set.capacity === null
              ? 'Empty: no limit'
              : `Empty: ${board.set.capacity}, as in the whole set`
          }
        />
        <Tickbox>
          <input type="checkbox" checked={isLocked} onChange={(event) => setLocked(event.target.checked)} />
          <span>
            Locked
            <br />
            <Small>Students cannot join or leave, and deals skip it. You can still move people.</Small>
          </span>
        </Tickbox>
        {board.set.signUp && <DetailFields details={details} onChange={put} />}
        {error && <ProblemStrip of={error} />}
        <footer>
          <Button onPress={onClose}>Cancel</Button>
          <Button type="submit" kind="main" isDisabled={isLoading || name.trim() === ''}>
            Save group
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
