import { Pencil } from 'lucide-react';
import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import { GroupNaming } from '@jigsaw/contract/sets';
import type { RoomView } from '@jigsaw/contract/rooms';
import { problemOf, ProblemStrip } from '../api/index.js';
import { Button, Field, Sheet, Small } from '../look/index.js';
import { useNameGroupMutation } from './roomsApi.js';

interface NamingProps {
  readonly room: RoomView;
  readonly version: number;
}

/** Members name their group and give it a motto, where the set lets them. */
export function NamingButton({ room, version }: NamingProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button kind="quiet" isIconOnly aria-label="Name and motto of your group" onPress={() => setOpen(true)}>
        <Pencil size={15} aria-hidden="true" />
      </Button>
      {isOpen && <NamingSheet room={room} version={version} onClose={() => setOpen(false)} />}
    </>
  );
}

function NamingSheet({ room, version, onClose }: NamingProps & { readonly onClose: () => void }) {
  const [name, setName] = useState(room.group.name);
  const [motto, setMotto] = useState(room.motto);
  // What this sheet started with: a name that comes in meanwhile is told of before it is written over.
  const [seen, setSeen] = useState(version);
  const [send, { error, isLoading }] = useNameGroupMutation();
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await send({ groupId: room.group.id, body: { name, motto, version: seen } });
    if ('data' in answer && answer.data) return onClose();
    const current = GroupNaming.safeParse(problemOf(answer.error).current);
    if (current.success) setSeen(current.data.version);
  };
  return (
    <Sheet title="Your group" onClose={onClose}>
      <form onSubmit={(event) => void submit(event)} style={{ display: 'grid', gap: 12 }}>
        <Field label="Name" value={name} onChange={setName} maxLength={80} autoFocus />
        <Field label="Motto" value={motto} onChange={setMotto} maxLength={120} />
        <Small>Everyone who sees your group sees this name. Any member can change it.</Small>
        {error && <ProblemStrip of={error} />}
        <footer>
          <Button onPress={onClose}>Cancel</Button>
          <Button type="submit" kind="main" isDisabled={isLoading || name.trim() === ''}>
            {isLoading ? 'Saving…' : 'Save'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
