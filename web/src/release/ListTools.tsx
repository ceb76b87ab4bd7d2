import { styled } from 'styled-components';
import type { ActivityView } from '@jigsaw/contract/release';
import { Choice, FindField } from '../look/index.js';
import { everything, isNarrowed, namesOf, stateOf } from './activityList.js';
import type { DueWhen, Order, Wanted } from './activityList.js';
import { HowMany, NarrowBy } from './NarrowBy.js';

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px var(--s-4);
  border-bottom: var(--hair);
  background: var(--paper);
  /* A long list keeps it in view, where there is room for both. */
  @media (min-height: 600px) {
    position: sticky;
    top: 0;
    z-index: 1;
  }
`;

const dues: readonly { readonly id: DueWhen; readonly label: string }[] = [
  { id: 'any', label: 'Due any time' },
  { id: 'soon', label: 'Due in 7 days' },
  { id: 'past', label: 'Past due' },
  { id: 'none', label: 'No due date' },
];
const orders: readonly { readonly id: Order; readonly label: string }[] = [
  { id: 'edited', label: 'Last edited first' },
  { id: 'due', label: 'By due date' },
  { id: 'title', label: 'By title' },
];

interface ListToolsProps {
  readonly activities: readonly ActivityView[];
  readonly shown: number;
  readonly wanted: Wanted;
  readonly onChange: (wanted: Wanted) => void;
}

/** What of the list is shown, and in which order. Only what there is can be chosen. */
export function ListTools({ activities, shown, wanted, onChange }: ListToolsProps) {
  const put = (part: Partial<Wanted>) => onChange({ ...wanted, ...part });
  return (
    <Tools role="search" aria-label="Activities">
      <FindField
        label="Find an activity"
        placeholder="Find an activity"
        value={wanted.words}
        onChange={(words) => put({ words })}
        width={190}
      />
      <NarrowBy
        used={{
          kinds: activities.map(({ kind }) => kind),
          states: [...new Set(activities.map(stateOf))],
          to: activities.flatMap(namesOf),
        }}
        wanted={wanted}
        onChange={put}
      />
      <Choice label="Due" isLabelHidden value={wanted.due} choices={dues} onChange={(due) => put({ due })} />
      <Choice
        label="Order"
        isLabelHidden
        value={wanted.order}
        choices={orders}
        onChange={(order) => put({ order })}
      />
      {isNarrowed(wanted) && (
        <HowMany
          shown={shown}
          of={activities.length}
          onAll={() => onChange({ ...everything, order: wanted.order })}
        />
      )}
    </Tools>
  );
}
