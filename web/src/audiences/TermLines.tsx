import { ChevronDown, X } from 'lucide-react';
import { useState } from 'react';
import { Button as Opener, ComboBox, Input, Label, ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import type { Term, TermNames } from '@jigsaw/core/audiences';
import { sayTerm } from '@jigsaw/core/audiences';
import { fold } from '@jigsaw/core/text';
import { Button, Popup, Small, Spoken } from '../look/index.js';
import type { TermChoice } from './termChoices.js';

const Lines = styled.ul`
  display: grid;
  li {
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: 34px;
    border-bottom: var(--hair);
  }
  li > :first-child {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
`;
const Picker = styled(ComboBox)`
  margin-top: 8px;
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

interface TermLinesProps {
  readonly label: string;
  /** What the first line does. */
  readonly placeholder: string;
  readonly terms: readonly Term[];
  readonly names: TermNames;
  readonly choices: readonly TermChoice[];
  readonly isLocked: boolean;
  readonly onChange: (terms: readonly Term[]) => void;
}

/** Lines of an audience: each a sentence that can be removed, and one field that finds whatever can be added. */
export function TermLines({ label, placeholder, terms, names, choices, isLocked, onChange }: TermLinesProps) {
  // After one is added, the next goes into the same field.
  const [isAdding, setAdding] = useState(false);
  const ids = new Set(terms.map((term) => JSON.stringify(term)));
  return (
    <div role="group" aria-label={label}>
      <Lines aria-label={label}>
        {terms.map((term) => {
          const says = sayTerm(term, names);
          return (
            <li key={JSON.stringify(term)}>
              <bdi>{says}</bdi>
              {!isLocked && (
                <Button
                  kind="quiet"
                  isSmall
                  isIconOnly
                  aria-label={`Remove: ${says}`}
                  onPress={() => {
                    setAdding(false);
                    onChange(terms.filter((each) => each !== term));
                  }}
                >
                  <X size={14} aria-hidden="true" />
                </Button>
              )}
            </li>
          );
        })}
      </Lines>
      {!isLocked && (
        <Adding
          key={terms.length} // begun anew without what was added
          label={`Add to “${label}”`}
          placeholder={terms.length === 0 ? placeholder : 'Add a group set, group, person, value or audience'}
          choices={choices.filter((choice) => !ids.has(choice.id))}
          isFocused={isAdding}
          onAdd={(term) => {
            setAdding(true);
            onChange([...terms, term]);
          }}
        />
      )}
    </div>
  );
}

interface AddingProps {
  readonly label: string;
  readonly placeholder: string;
  readonly choices: readonly TermChoice[];
  readonly isFocused: boolean;
  readonly onAdd: (term: Term) => void;
}

function Adding({ label, placeholder, choices, isFocused, onAdd }: AddingProps) {
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
        if (choice) onAdd(choice.term);
      }}
    >
      <Label>
        <Spoken>{label}</Spoken>
      </Label>
      <span>
        <Input placeholder={placeholder} autoFocus={isFocused} />
        <Opener aria-label="Show what can be added">
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
          {(choice: TermChoice) => (
            <ListBoxItem id={choice.id} textValue={choice.says}>
              {choice.says}
            </ListBoxItem>
          )}
        </ListBox>
      </Popup>
    </Picker>
  );
}
