import { useState } from 'react';
import { styled } from 'styled-components';
import type { Foreseen, HeldView, Planned } from '@jigsaw/contract/foreseen';
import type { Held } from '@jigsaw/core/foreseen';
import { sayDifference } from '@jigsaw/core/foreseen';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import { counted, namesTogether } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Muted, Sheet, useFontsOf, Waiting } from '../look/index.js';
import { useForeseeSightQuery } from './foreseenApi.js';

const List = styled.ul`
  display: grid;
  font: var(--t-13);
  li {
    padding: 6px 0;
    border-top: var(--hair);
  }
  li:first-child {
    border-top: 0;
  }
`;

/** What an act would change in who sees what, in words, before it is done. */
export function WhatChanges({ planned }: { readonly planned: Planned }) {
  const { course } = useCourse();
  const foreseen = useForeseeSightQuery({ courseId: course.id, planned });
  if (unshown(foreseen) !== undefined)
    return <ProblemStrip of={foreseen.error} onRetry={() => void foreseen.refetch()} />;
  if (!foreseen.currentData) return <Waiting what="what would change" rows={2} />;
  return <Changes foreseen={foreseen.currentData} />;
}

function Changes({ foreseen: { changes, groups } }: { readonly foreseen: Foreseen }) {
  const { dates } = useCourse();
  const nameOf = keyedBy(groups, ({ groupId }) => groupId);
  const wordsOf = (eachOf: number | null) => ({
    dateTime: (at: number) => dates.dateTime(new Date(at).toISOString()),
    groupName: (id: Foreseen['groups'][number]['groupId']) =>
      eachOf === null ? (nameOf.get(id)?.name ?? 'a group') : 'their group',
  });
  useFontsOf(
    changes.flatMap(({ title, students }) => [title, ...students.named.map(({ name }) => name)]).join(' '),
  );
  if (changes.length === 0) return <Muted role="status">No one would see anything different.</Muted>;
  // A student who moves gets the same of most activities: it is said once, and where.
  const said = groupedBy(changes, ({ students: { count, named }, eachOf, before, after }) => {
    const who = named.length > 0 ? namesTogether(named.map(({ name }) => name)) : counted(count, 'student');
    const where = eachOf === null ? '' : ` in ${counted(eachOf, 'group')}`;
    const what = { before: heldOf(before), after: heldOf(after) };
    return `${who}${where} ${sayDifference(what, wordsOf(eachOf), count === 1)}`;
  });
  return (
    <List aria-label="What would change">
      {[...said].map(([sentence, alike]) => (
        <li key={sentence}>
          <b>{sentence}</b>
          <Muted as="p">{alike.map(({ title }) => title).join('\u00a0· ')}</Muted>
        </li>
      ))}
    </List>
  );
}

const heldOf = ({ own, ...held }: HeldView): Held => ({
  ...held,
  own: own.map(({ groupId, due }) => ({ groupId, due: due === null ? null : Date.parse(due) })),
});

interface WhatWouldChangeProps {
  readonly planned: Planned;
  /** What is read about: done from here, too. */
  readonly act: { readonly label: string; readonly does: () => void };
  readonly isSmall?: boolean;
}
/** The same, for those who ask before they act. */
export function WhatWouldChange({ planned, act, isSmall = false }: WhatWouldChangeProps) {
  const [isShown, setShown] = useState(false);
  const close = () => setShown(false);
  return (
    <>
      <Button kind="quiet" isSmall={isSmall} onPress={() => setShown(true)}>
        Show what changes…
      </Button>
      {isShown && (
        <Sheet title={`${act.label}: what changes`} onClose={close}>
          <WhatChanges planned={planned} />
          <footer>
            <Button
              kind="main"
              onPress={() => {
                act.does();
                close();
              }}
            >
              {act.label}
            </Button>
            <Button onPress={close}>Keep as it is</Button>
          </footer>
        </Sheet>
      )}
    </>
  );
}
