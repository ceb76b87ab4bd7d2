import { styled } from 'styled-components';
import type { ActivityView } from '@jigsaw/contract/release';
import { kinds } from '../kinds/index.js';
import { Button, Choice, FindField, Muted } from '../look/index.js';
import { everything, isNarrowed, namesOf, stateOf } from './activityList.js';
import type { DueWhen, Order, Wanted } from './activityList.js';
import { stateWords } from './states.js';

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
const any = 'any';

interface ListToolsProps {
  readonly activities: readonly ActivityView[];
  readonly shown: number;
  readonly wanted: Wanted;
  readonly onChange: (wanted: Wanted) => void;
}

/** What of the list is shown, and in which order. Only what there is can be chosen. */
export function ListTools({ activities, shown, wanted, onChange }: ListToolsProps) {
  const put = (part: Partial<Wanted>) => onChange({ ...wanted, ...part });
  const used = new Set(activities.map((activity) => activity.kind));
  const states = [...new Set(activities.map(stateOf))];
  const names = [...new Set(activities.flatMap(namesOf))].toSorted((a, b) => a.localeCompare(b));
  return (
    <Tools role="search" aria-label="Activities">
      <FindField
        label="Find an activity"
        placeholder="Find an activity"
        value={wanted.words}
        onChange={(words) => put({ words })}
        width={190}
      />
      <Choice
        label="Kind"
        isLabelHidden
        value={wanted.kind ?? any}
        choices={[
          { id: any, label: 'Every kind' },
          ...kinds.filter(({ name }) => used.has(name)).map(({ name, word }) => ({ id: name, label: word })),
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
      <Choice label="Due" isLabelHidden value={wanted.due} choices={dues} onChange={(due) => put({ due })} />
      <Choice
        label="Order"
        isLabelHidden
        value={wanted.order}
        choices={orders}
        onChange={(order) => put({ order })}
      />
      {isNarrowed(wanted) && (
        <>
          <Muted role="status">
            {shown} of {activities.length}
          </Muted>
          <Button kind="quiet" isSmall onPress={() => onChange({ ...everything, order: wanted.order })}>
            Show all
          </Button>
        </>
      )}
    </Tools>
  );
}
