import { useState } from 'react';
import { styled } from 'styled-components';
import type { EventSettings, OwnTime } from '@jigsaw/contract/calendar';
import { fold } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, Chosen, DateTimeField, Field, Finder, Label, Sheet, Small, Without } from '../look/index.js';
import type { NamedGroup } from '../text/index.js';
import { endAfter } from './endAfter.js';

const Form = styled.div`
  display: grid;
  gap: 12px;
  label > input[type='checkbox'] {
    margin-right: 8px;
  }
`;

interface OwnTimeSheetProps {
  readonly settings: EventSettings;
  readonly groups: readonly NamedGroup[];
  /** What a group has; null: another group is to get one. */
  readonly known: OwnTime | null;
  readonly onSet: (time: OwnTime) => void;
  readonly onClose: () => void;
}

/** When and where it is for one group. */
export function OwnTimeSheet({ settings, groups, known, onSet, onClose }: OwnTimeSheetProps) {
  const { course } = useCourse();
  const [groupId, setGroupId] = useState(known?.groupId ?? null);
  const [starts, setStarts] = useState(known?.starts ?? settings.starts);
  const [ends, setEnds] = useState(known?.ends ?? settings.ends);
  const [place, setPlace] = useState(known?.place ?? '');
  const [isCancelled, setIsCancelled] = useState(known?.isCancelled ?? false);
  const group = groups.find(({ id }) => id === groupId);
  const missing =
    groupId === null
      ? 'Choose a group'
      : starts === null
        ? 'Choose when it starts'
        : ends === null
          ? 'Choose when it ends'
          : Date.parse(ends) <= Date.parse(starts)
            ? 'Choose an end after the start'
            : null;
  const name = group?.name ?? 'this group';
  return (
    <Sheet title={known ? `When ${name} comes` : 'Another time for a group'} onClose={onClose}>
      <Form>
        {known === null &&
          (group === undefined ? (
            <Finder
              label="Group"
              placeholder="Name a group"
              choices={groups.map(({ id, name: says, number }) => ({
                id,
                says,
                found: fold(`${says} ${number}`),
              }))}
              isFocused
              onFind={({ id }) => setGroupId(groups.find((each) => each.id === id)?.id ?? null)}
            />
          ) : (
            <div style={{ display: 'grid', gap: 4, justifyItems: 'start' }}>
              <Label as="span">Group</Label>
              <Chosen>
                <bdi>{group.name}</bdi>
                <Without what={group.name} onPress={() => setGroupId(null)} />
              </Chosen>
            </div>
          ))}
        <DateTimeField
          label="Starts for this group"
          value={starts}
          timeZone={course.timeZone}
          onChange={(next) => {
            setEnds(endAfter(next, { starts, ends }));
            setStarts(next);
          }}
        />
        <DateTimeField
          label="Ends for this group"
          value={ends}
          timeZone={course.timeZone}
          onChange={setEnds}
        />
        <Field
          label="Place for this group"
          value={place}
          onChange={setPlace}
          placeholder={settings.place}
          hint={settings.place === '' ? undefined : 'Empty: where it is for all'}
          maxLength={300}
        />
        <label>
          <input
            type="checkbox"
            checked={isCancelled}
            onChange={(event) => setIsCancelled(event.target.checked)}
          />
          It is cancelled for this group
        </label>
      </Form>
      <footer>
        {missing && <Small>{missing}</Small>}
        <Button
          kind="main"
          isDisabled={missing !== null}
          onPress={() => {
            if (groupId !== null && starts !== null && ends !== null)
              onSet({ groupId, starts, ends, place: place.trim(), isCancelled });
          }}
        >
          Set for {name}
        </Button>
      </footer>
    </Sheet>
  );
}
