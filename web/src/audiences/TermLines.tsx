import { X } from 'lucide-react';
import { useState } from 'react';
import { styled } from 'styled-components';
import type { Term, TermNames } from '@jigsaw/core/audiences';
import { sayTerm } from '@jigsaw/core/audiences';
import { Button, Finder } from '../look/index.js';
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
        <div style={{ marginTop: 8 }}>
          <Finder
            key={terms.length} // begun anew without what was added
            label={`Add to “${label}”`}
            isLabelHidden
            placeholder={
              terms.length === 0 ? placeholder : 'Add a group set, group, person, value or audience'
            }
            choices={choices.filter((choice) => !ids.has(choice.id))}
            isFocused={isAdding}
            onFind={({ term }) => {
              setAdding(true);
              onChange([...terms, term]);
            }}
          />
        </div>
      )}
    </div>
  );
}
