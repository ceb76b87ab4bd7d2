import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { ProblemStrip } from '../api/index.js';
import { Button, Field, Sheet, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useCopyGroupSetMutation } from './setsApi.js';
import { Tickbox } from './SetSheet.js';

/** The same groups again under another name: to begin again, or to try something else beside them. */
export function CopySheet({ set, onClose }: { readonly set: GroupSetView; readonly onClose: () => void }) {
  const { course } = useCourse();
  const navigate = useNavigate();
  const notice = useNotice();
  const [name, setName] = useState(`${set.name} 2`);
  const [withMembers, setWithMembers] = useState(true);
  const [copy, { error, isLoading }] = useCopyGroupSetMutation();
  const make = async () => {
    const answer = await copy({ setId: set.id, body: { name, withMembers } });
    if (!('data' in answer) || !answer.data) return;
    notice(`${answer.data.name} created`);
    onClose();
    void navigate(`/c/${course.id}/groups/${answer.data.id}`);
  };
  return (
    <Sheet title={`Copy ${set.name}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '') void make();
        }}
        style={{ display: 'grid', gap: 12 }}
      >
        {error && <ProblemStrip of={error} />}
        <Field label="Name of the new set" value={name} onChange={setName} maxLength={120} autoFocus />
        <Tickbox>
          <input
            type="checkbox"
            checked={withMembers}
            onChange={(event) => setWithMembers(event.target.checked)}
          />
          With the same people in each group
        </Tickbox>
        <footer>
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" type="submit" isDisabled={isLoading || name.trim() === ''}>
            {isLoading ? 'One moment…' : `Create ${set.groupCount} groups`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
