import { Suspense } from 'react';
import { styled } from 'styled-components';
import { MarkView } from '@jigsaw/contract/marks';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { Button, hueOfGroup, Waiting } from '../look/index.js';
import { ChangesSince } from './ChangesSince.js';
import { FeedbackSide } from './FeedbackSide.js';
import { MarkFoot } from './MarkFoot.js';
import { MemberTable } from './MemberTable.js';
import { UnitSum } from './UnitSum.js';
import { useMarkSheet } from './useMarkSheet.js';
import type { Next } from './useQueue.js';

const Frame = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  &[data-rubric] {
    grid-template-columns: minmax(0, 1fr) 456px;
  }
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
`;
const Doc = styled.div`
  overflow: auto;
  background: var(--sunk);
  padding: 14px 18px 20px;
  > article {
    background: var(--surface);
    border: var(--hair);
    border-radius: var(--r-2);
    padding: 14px 20px 18px;
    max-width: 760px;
    margin: 0 auto;
    font: 14px/21px var(--font-text);
    display: grid;
    gap: 10px;
  }
  article header {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 12px;
    font: var(--t-13);
    margin-bottom: 10px;
  }
  article section + section {
    border-top: var(--hair);
    padding-top: 10px;
  }
`;
const Sums = styled.div`
  grid-column: 1 / -1;
  border-top: 1px solid var(--ink);
  background: var(--surface);
  min-height: 0;
`;

interface MarkSheetProps {
  readonly mark: MarkView;
  /** null: nothing else is to mark. */
  readonly next: Next | null;
  readonly reload: () => Promise<MarkView>;
}

/** The work, one mark for the group or the student, what differs for each person and why, and the sum that each member will see. */
export function MarkSheet({ mark, next, reload }: MarkSheetProps) {
  const { course } = useCourse();
  const mayMark = course.role === 'instructor' || course.role === 'assistant';
  const acts = useMarkSheet(mark, reload);
  const { copy, unit } = mark;
  const { state, groupMark, isGroup } = acts;
  const kind = kindOf(copy.kind);
  const theirs = state.kind === 'conflict' ? MarkView.safeParse(state.current).data : undefined;
  return (
    <Frame
      style={copy.group ? hueOfGroup(copy.group.number) : undefined}
      data-rubric={copy.rubric ? true : undefined}
    >
      <Doc tabIndex={0} role="region" aria-label={`${acts.who}’s work`}>
        <article>
          <Suspense fallback={<Waiting what="the work" rows={5} />}>
            {kind?.OnDesk && <kind.OnDesk head={copy} student={isGroup ? null : unit} />}
          </Suspense>
        </article>
      </Doc>
      <FeedbackSide mark={mark} acts={acts} mayMark={mayMark} />
      <Sums>
        <UnitSum mark={mark} acts={acts} />
        <MemberTable
          members={mark.members}
          adjustments={acts.written.adjustments}
          results={acts.results}
          ownLate={acts.ownLate}
          max={mark.points}
          onAdjust={acts.adjust}
          isDisabled={!mayMark}
          isGroup={isGroup}
        />
        {acts.changes.length > 0 && <ChangesSince changes={acts.changes} />}
        {acts.release.error !== undefined && state.kind !== 'conflict' && (
          <ProblemStrip of={acts.release.error} />
        )}
        {state.kind === 'failed' && (
          <ProblemStrip onRetry={() => void acts.flush()}>{state.sentence}</ProblemStrip>
        )}
        {state.kind === 'conflict' && (
          <ProblemStrip>
            {theirs?.changedBy ?? 'Someone else'} marked this meanwhile
            {theirs ? `: ${sayBoth(acts.disputedWith(theirs), theirs, groupMark)}` : ''}. Yours is still here.{' '}
            <Button isSmall onPress={() => void acts.keepMine()}>
              Keep mine
            </Button>{' '}
            <Button isSmall onPress={() => void acts.takeTheirs()}>
              Use theirs
            </Button>
          </ProblemStrip>
        )}
        <MarkFoot mark={mark} acts={acts} mayMark={mayMark} next={next} />
      </Sums>
    </Frame>
  );
}

/** What both changed; where they did not, what each of them comes to. */
const sayBoth = (disputed: readonly string[], theirs: MarkView, mine: string | null): string =>
  disputed.length > 0
    ? disputed.join('; ')
    : `they gave ${theirs.groupMark ?? 'no mark'}, you ${mine ?? 'none'}`;
