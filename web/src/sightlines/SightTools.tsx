import { styled } from 'styled-components';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { kindOf } from '../kinds/index.js';
import { Button, Choice, Muted } from '../look/index.js';
import { stateWords } from '../release/index.js';
import { everyLine, goesTo, isNarrowed, states } from './lines.js';
import type { WantedLines } from './lines.js';

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 6px var(--s-4);
  border-bottom: var(--hair);
  background: var(--paper);
  label {
    white-space: nowrap;
  }
`;
const any = 'any';

interface SightToolsProps {
  readonly view: SightlinesView;
  readonly shown: number;
  /** Something of some activity is to be checked. */
  readonly hasToCheck: boolean;
  readonly wanted: WantedLines;
  readonly onChange: (wanted: WantedLines) => void;
}

/** Which activities are shown. Only what there is can be chosen. */
export function SightTools({ view, shown, hasToCheck, wanted, onChange }: SightToolsProps) {
  const put = (part: Partial<WantedLines>) => onChange({ ...wanted, ...part });
  const { activities } = view;
  const kinds = [...new Set(activities.map(({ kind }) => kind))];
  const names = [...new Set(activities.flatMap((activity) => goesTo(activity, view)))].toSorted((a, b) => a.localeCompare(b)); // prettier-ignore
  return (
    <Tools role="search" aria-label="Activities">
      <Choice
        label="Kind"
        isLabelHidden
        value={wanted.kind ?? any}
        choices={[
          { id: any, label: 'Every kind' },
          ...kinds.map((each) => ({ id: each, label: kindOf(each)?.word ?? each })),
        ]}
        onChange={(kind) => put({ kind: kind === any ? null : kind })}
      />
      <Choice
        label="State"
        isLabelHidden
        value={wanted.state ?? any}
        choices={[
          { id: any, label: 'Every state' },
          ...states.map((state) => ({ id: state, label: stateWords[state] })),
        ]}
        onChange={(state) => put({ state: state === any ? null : state })}
      />
      {names.length > 1 && (
        <Choice
          label="Released to"
          isLabelHidden
          value={wanted.to ?? any}
          choices={[{ id: any, label: 'To anyone' }, ...names.map((name) => ({ id: name, label: name }))]}
          onChange={(to) => put({ to: to === any ? null : to })}
        />
      )}
      <label>
        <input
          type="checkbox"
          checked={wanted.isOnlyDifferent}
          onChange={(event) => put({ isOnlyDifferent: event.target.checked })}
        />{' '}
        Only what differs
      </label>
      {(hasToCheck || wanted.isOnlyToCheck) && (
        <label>
          <input
            type="checkbox"
            checked={wanted.isOnlyToCheck}
            onChange={(event) => put({ isOnlyToCheck: event.target.checked })}
          />{' '}
          Only what is to check
        </label>
      )}
      {isNarrowed(wanted) && (
        <>
          <Muted role="status">
            {shown} of {activities.length}
          </Muted>
          <Button kind="quiet" isSmall onPress={() => onChange(everyLine)}>
            Show all
          </Button>
        </>
      )}
    </Tools>
  );
}
