import { useState } from 'react';
import { styled } from 'styled-components';
import type { DeskView, ReadyUnit } from '@jigsaw/contract/marks';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { placeOf } from './useQueue.js';
import { Button, PersonName, Sheet, Small, Waiting } from '../look/index.js';
import { useAct } from '../page/index.js';
import {
  useReadReadyMarksQuery,
  useRecallManyMarksMutation,
  useReleaseManyMarksMutation,
  useTakeSuggestedMarksMutation,
} from './marksApi.js';

const List = styled.ul`
  max-height: 46vh;
  overflow: auto;
  border-top: var(--hair);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 64px minmax(0, 1.2fr);
    gap: 12px;
    align-items: baseline;
    padding: 6px 2px;
    border-bottom: var(--hair);
    font: var(--t-13);
  }
  li > :nth-child(2) {
    text-align: right;
    font-weight: 650;
  }
`;

/** What can be done for several at once; offered where there is something to do. */
/** @param desk with the rows that are shown: only these are acted on. */
export function ManyMarks({ desk, isNarrowed }: { readonly desk: DeskView; readonly isNarrowed: boolean }) {
  const [open, setOpen] = useState<'release' | 'take' | null>(null);
  const drafted = desk.rows.filter(({ mark }) => mark.state === 'drafted' || mark.state === 'changed').length;
  const suggested = desk.rows.filter((row) => row.suggested !== null && row.mark.state === 'unmarked').length;
  return (
    <>
      {suggested > 0 && (
        <Button onPress={() => setOpen('take')}>Accept {counted(suggested, 'suggested mark')}…</Button>
      )}
      {drafted > 0 && !desk.isWithdrawn && (
        <Button onPress={() => setOpen('release')}>Release ready marks…</Button>
      )}
      {open && <Check desk={desk} isNarrowed={isNarrowed} what={open} onClose={() => setOpen(null)} />}
    </>
  );
}

const unitsOf = (ready: readonly ReadyUnit[]) =>
  ready.map(({ copyId, unit, version }) => ({ copyId, unit, version }));

/** What would be done, one by one, before the one press that does it. */
function Check({
  desk,
  isNarrowed,
  what,
  onClose,
}: {
  readonly desk: DeskView;
  readonly isNarrowed: boolean;
  readonly what: 'release' | 'take';
  readonly onClose: () => void;
}) {
  const { releaseId, markFor } = desk;
  const ready = useReadReadyMarksQuery(releaseId, { refetchOnMountOrArgChange: true });
  const recall = useAct(useRecallManyMarksMutation());
  const release = useAct(useReleaseManyMarksMutation(), {
    says: ({ students }) => `Released to ${counted(students, 'student')}`,
    undo: (_done, asked) => () => recall(asked),
    undoLabel: 'Recall them',
    isRefusalShown: true,
  });
  const take = useAct(useTakeSuggestedMarksMutation(), {
    says: ({ units }) => `${counted(units, 'suggested mark')} accepted as drafts`,
    isRefusalShown: true,
  });
  const isRelease = what === 'release';
  const refusal = isRelease ? release.error : take.error;
  const title = isRelease ? 'Release ready marks' : 'Accept suggested marks';
  if (unshown(ready) !== undefined || !ready.currentData || ready.isFetching)
    return (
      <Sheet title={title} onClose={onClose}>
        {unshown(ready) !== undefined ? (
          <ProblemStrip of={ready.error} onRetry={() => void ready.refetch()} />
        ) : (
          <Waiting what="what is ready" rows={6} />
        )}
      </Sheet>
    );
  const isShown = new Set(desk.rows.map(placeOf));
  const all = (isRelease ? ready.currentData.toRelease : ready.currentData.toTake).filter((each) =>
    isShown.has(placeOf(each)),
  );
  const able = all.filter((each) => each.lacks === null);
  const students = able.reduce((sum, each) => sum + each.students, 0);
  const submit = async () => {
    const asked = { releaseId, units: unitsOf(able) };
    if (await (isRelease ? release(asked) : take(asked))) onClose();
    else void ready.refetch();
  };
  return (
    <Sheet title={title} onClose={onClose}>
      {refusal !== undefined && <ProblemStrip of={refusal} />}
      <Small>
        {isNarrowed && 'Only what the queue shows now. '}
        {isRelease
          ? 'Each student sees only their own mark.'
          : 'They become drafts. You can change them before you release them.'}
      </Small>
      <List tabIndex={0} aria-label={title}>
        {all.map((each) => (
          <li key={`${each.copyId} ${each.unit}`}>
            <PersonName name={each.who.name} reading={each.who.reading} />
            <span>{each.mark ?? '–'}</span>
            <Small>
              {each.lacks ??
                (each.isChange
                  ? `changes the mark of ${counted(each.students, 'student')}`
                  : markFor === 'group'
                    ? counted(each.students, 'student')
                    : '')}
            </Small>
          </li>
        ))}
      </List>
      <footer>
        {able.length < all.length && (
          <Small style={{ flex: 1 }}>
            {counted(all.length - able.length, 'incomplete mark')} not released
          </Small>
        )}
        <Button
          kind="main"
          isDisabled={able.length === 0 || release.isBusy || take.isBusy}
          onPress={() => void submit()}
        >
          {isRelease
            ? `Release to ${counted(students, 'student')}`
            : `Accept ${counted(able.length, 'mark')}`}
        </Button>
      </footer>
    </Sheet>
  );
}
