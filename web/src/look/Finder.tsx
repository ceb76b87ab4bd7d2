import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { Button as Opener, ComboBox, Input, Label, ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import { fold } from '@jigsaw/core/text';
import { Label as Heading } from './controls.js';
import { Small, Spoken } from './layout.js';
import { Popup } from './Popup.js';

const Picker = styled(ComboBox)`
  > span {
    position: relative;
    display: block;
  }
  > span > button {
    position: absolute;
    inset: 4px 4px 4px auto;
    width: 28px;
    display: grid;
    place-items: center;
    border: 0;
    background: none;
    cursor: pointer;
  }
  input {
    width: 100%;
    height: var(--ctl);
    padding: 0 9px;
    border: 1px dashed var(--edge);
    border-radius: var(--r-2);
    background: none;
    color: var(--ink);
  }
`;
/** As many as fit a list that is read; more words find the rest. */
const mostShown = 60;

/** Something that can be found by its words. */
export interface Findable {
  readonly id: string;
  readonly says: string;
  /** What it is looked up by: folded words. */
  readonly found: string;
}

interface FinderProps<Choice extends Findable> {
  readonly label: string;
  readonly isLabelHidden?: boolean;
  readonly placeholder: string;
  readonly choices: readonly Choice[];
  readonly isFocused?: boolean;
  readonly onFind: (choice: Choice) => void;
}

/** One field in which anything of a long list is found by any of its words. */
export function Finder<Choice extends Findable>({
  label,
  isLabelHidden = false,
  placeholder,
  choices,
  isFocused = false,
  onFind,
}: FinderProps<Choice>) {
  const [words, setWords] = useState('');
  const wanted = fold(words)
    .split(/\s+/)
    .filter((word) => word !== '');
  const found = choices.filter((choice) => wanted.every((word) => choice.found.includes(word)));
  return (
    <Picker
      inputValue={words}
      onInputChange={setWords}
      items={found.slice(0, mostShown)}
      defaultFilter={() => true}
      value={null}
      allowsEmptyCollection
      onChange={(key) => {
        const choice = choices.find((each) => each.id === key);
        if (choice) onFind(choice);
      }}
    >
      <Label>{isLabelHidden ? <Spoken>{label}</Spoken> : <Heading as="span">{label}</Heading>}</Label>
      <span>
        <Input placeholder={placeholder} autoFocus={isFocused} />
        <Opener aria-label="Show the whole list">
          <ChevronDown size={15} aria-hidden="true" />
        </Opener>
      </span>
      <Popup>
        <ListBox
          renderEmptyState={() => (
            <p style={{ padding: 8 }}>
              <Small>Nothing here is called “{words}”.</Small>
            </p>
          )}
        >
          {(choice: Choice) => (
            <ListBoxItem id={choice.id} textValue={choice.says}>
              {choice.says}
            </ListBoxItem>
          )}
        </ListBox>
      </Popup>
    </Picker>
  );
}
