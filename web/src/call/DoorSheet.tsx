import { useState } from 'react';
import type { CallView } from '@jigsaw/contract/call';
import { ProblemStrip } from '../api/index.js';
import { Button, Field, Sheet, Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useSetDoorMutation } from './callApi.js';

interface DoorSheetProps {
  readonly copyId: string;
  readonly door: CallView['door'];
  readonly whose: string;
  readonly onClose: () => void;
}

/** Where the door of a call leads. */
export function DoorSheet({ copyId, door, whose, onClose }: DoorSheetProps) {
  const [address, setAddress] = useState(door.address);
  const set = useAct(useSetDoorMutation(), {
    says: (view) =>
      view.door.address === '' ? 'The door leads nowhere else now.' : 'The door leads there now.',
    isRefusalShown: true,
  });
  const save = async () => {
    if (await set({ copyId, body: { address, version: door.version } })) onClose();
  };
  return (
    <Sheet title="Where does the door lead?" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Field
          label="Address of your call"
          value={address}
          onChange={setAddress}
          placeholder="https://"
          hint="Left empty, this page is all there is: it shows who is here."
          autoFocus
        />
        <Small>Only {whose} and staff see it.</Small>
        {set.error !== undefined && <ProblemStrip of={set.error} />}
        <footer>
          <Button kind="main" type="submit" isDisabled={set.isBusy}>
            Save
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
