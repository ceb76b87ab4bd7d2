import { styled } from 'styled-components';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { HowMany, NarrowBy } from '../release/index.js';
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
  return (
    <Tools role="search" aria-label="Activities">
      <NarrowBy
        used={{
          kinds: activities.map(({ kind }) => kind),
          states,
          to: activities.flatMap((activity) => goesTo(activity, view)),
        }}
        wanted={wanted}
        onChange={put}
      />
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
        <HowMany shown={shown} of={activities.length} onAll={() => onChange(everyLine)} />
      )}
    </Tools>
  );
}
