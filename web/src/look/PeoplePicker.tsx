import { X } from 'lucide-react';
import { useMemo } from 'react';
import { ComboBox, Input, ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { Button } from './controls.js';
import { Small } from './layout.js';
import { Popup } from './Popup.js';

/** Something chosen, with a way to let it go. */
export const Chosen = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 2px;
  height: 24px;
  padding: 0 2px 0 7px;
  border: 1px solid var(--edge);
  border-radius: var(--r-1);
  background: var(--surface);
  font-weight: 600;
`;

const Picker = styled(ComboBox)`
  input {
    width: 132px;
    height: 24px;
    padding: 0 7px;
    border: 1px dashed var(--edge);
    border-radius: var(--r-1);
    background: none;
    color: var(--ink);
    font: var(--t-13);
  }
`;

interface WithoutProps {
  readonly what: string;
  readonly isLast?: boolean;
  readonly onPress: () => void;
}

export function Without({ what, isLast = false, onPress }: WithoutProps) {
  return (
    <Button
      kind="quiet"
      isSmall
      isIconOnly
      isDisabled={isLast}
      aria-label={`Without ${what}`}
      onPress={onPress}
    >
      <X size={12} aria-hidden="true" />
    </Button>
  );
}

interface PeoplePickerProps {
  readonly people: readonly {
    readonly enrolmentId: EnrolmentId;
    readonly name: string;
    readonly reading: string | null;
    readonly number: string | null;
  }[];
  readonly chosen: readonly EnrolmentId[];
  readonly onChange: (chosen: EnrolmentId[]) => void;
  readonly isFocused?: boolean;
}

/** People by name, one after the other. Two of one name are told apart by their numbers. */
export function PeoplePicker({ people, chosen, onChange, isFocused = false }: PeoplePickerProps) {
  const others = people.filter((person) => !chosen.includes(person.enrolmentId));
  const twins = useMemo(() => {
    const byName = groupedBy(people, (person) => person.name);
    return new Set([...byName].flatMap(([name, own]) => (own.length > 1 ? [name] : [])));
  }, [people]);
  return (
    <>
      {chosen.map((id) => {
        const name = people.find((person) => person.enrolmentId === id)?.name ?? 'someone who left';
        return (
          <Chosen key={id}>
            <bdi>{name}</bdi>
            <Without what={name} onPress={() => onChange(chosen.filter((each) => each !== id))} />
          </Chosen>
        );
      })}
      <Picker
        key={chosen.length} // begun anew with everyone who is named
        aria-label="Someone more"
        value={null}
        defaultItems={others}
        onChange={(key) => key !== null && onChange([...chosen, key as EnrolmentId])}
      >
        <Input placeholder={chosen.length === 0 ? 'Name someone…' : 'and…'} autoFocus={isFocused} />
        <Popup>
          <ListBox>
            {(person: (typeof others)[number]) => (
              <ListBoxItem id={person.enrolmentId} textValue={`${person.name} ${person.reading ?? ''}`}>
                {person.name}{' '}
                <Small>
                  {[person.reading, twins.has(person.name) && person.number].filter(Boolean).join(' ')}
                </Small>
              </ListBoxItem>
            )}
          </ListBox>
        </Popup>
      </Picker>
    </>
  );
}
