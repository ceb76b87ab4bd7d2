import { Fragment } from 'react';
import { styled } from 'styled-components';
import type { RosterChangeView } from '@jigsaw/contract/roster';
import { ProblemStrip } from '../api/index.js';
import { Button, PersonName, Sheet, Small, Tag, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListRosterChangesQuery } from './rosterApi.js';
import { useUndoRoster } from './useRosterAct.js';

const List = styled.ol`
  border-top: var(--hair);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 12px;
    align-items: center;
    padding: 8px 0;
    border-bottom: var(--hair);
  }
`;

const kindWords = {
  import: 'Imported',
  sync: 'Synced with the registrar',
  add: 'Added',
  edit: 'Edited',
  drop: 'Removed from the course',
  restore: 'Restored',
  join: 'Merged two entries',
  'rename-attribute': 'Attribute renamed',
  undo: 'Undone',
} as const satisfies Record<RosterChangeView['kind'], string>;

/** "3 added, 2 edited". */
export function sayCounts({ added, removed, dropped, back, edited }: RosterChangeView['counts']): string {
  return [
    added > 0 && `${added} added`,
    edited > 0 && `${edited} edited`,
    dropped > 0 && `${dropped} left`,
    back > 0 && `${back} back`,
    removed > 0 && `${removed} removed`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** What was done to the roster, who did it, and the way back. */
export function ChangesSheet({ onClose }: { readonly onClose: () => void }) {
  const { course, dates } = useCourse();
  const list = useListRosterChangesQuery(course.id);
  const undo = useUndoRoster();
  return (
    <Sheet title="Changes of the roster" onClose={onClose}>
      {list.error && <ProblemStrip of={list.error} onRetry={() => void list.refetch()} />}
      {!list.data && !list.error && <Waiting what="the changes" rows={4} />}
      {list.data?.changes.length === 0 && <p>Nothing was changed yet.</p>}
      {list.data && list.data.changes.length > 0 && (
        <List>
          {list.data.changes.map((change) => {
            const { counts } = change;
            const people = Object.values(counts).reduce((sum, count) => sum + count, 0);
            return (
              <li key={change.id}>
                <span>
                  <b>{kindWords[change.kind]}</b>{' '}
                  {change.names.map((name, at) => (
                    <Fragment key={at}>
                      {at > 0 && ', '}
                      <PersonName name={name} />
                    </Fragment>
                  ))}
                  {people > change.names.length && ` and ${people - change.names.length} more`}
                  <br />
                  <Small>
                    {sayCounts(counts)} · <PersonName name={change.by} />, {dates.dateTime(change.at)}
                  </Small>
                </span>
                {change.isUndone ? (
                  <Tag>Undone</Tag>
                ) : change.canUndo ? (
                  <Button
                    isSmall
                    aria-label={`Undo: ${kindWords[change.kind]} ${change.names.join(', ')}`}
                    onPress={() => void undo(change.id)}
                  >
                    Undo
                  </Button>
                ) : null}
              </li>
            );
          })}
        </List>
      )}
    </Sheet>
  );
}
