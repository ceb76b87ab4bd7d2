import { skipToken } from '@reduxjs/toolkit/query';
import { styled } from 'styled-components';
import type { ActivityContent } from '@jigsaw/contract/release';
import { sayLatePolicy } from '@jigsaw/core/handin';
import { partsChanged } from '@jigsaw/core/release';
import type { ContentPart } from '@jigsaw/core/release';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Small } from '../look/index.js';
import { MarksForeseen } from './MarksForeseen.js';
import { useForeseeMarksQuery } from './releaseApi.js';
import type { Composing } from './useComposer.js';

const Strip = styled.section`
  display: grid;
  gap: 8px;
  padding: 12px var(--s-4);
  border-bottom: 1px solid var(--ink);
  background: var(--attn-tint);
  font: var(--t-13);
  > header {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  > header h2 {
    font: var(--h-14);
  }
  > ul {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 20px;
  }
`;

/** What is changed in an activity that groups have: what, for how many and whose marks, before one press makes it so. */
export function InWork({ composing }: { readonly composing: Composing }) {
  const { dates } = useCourse();
  const { activity, saving, fault, readers, inWork: acts } = composing;
  const { inWork, version } = activity;
  const isSaved = saving.kind === 'saved' && fault === null;
  const marks = useForeseeMarksQuery(
    inWork === null || !isSaved || activity.points === null
      ? skipToken
      : { activityId: activity.id, version, extension: null },
  );
  if (inWork === null) return null;
  const isForeseen = activity.points === null || (marks.currentData !== undefined && !marks.isFetching);
  return (
    <Strip aria-label="Changes that groups do not see yet">
      <header>
        <h2>Groups do not see these changes yet</h2>
        <span style={{ flex: 1 }} />
        <Button onPress={() => void acts.discard(version)} isDisabled={!isSaved || acts.isBusy}>
          Discard changes
        </Button>
        <Button
          kind="main"
          isDisabled={!isSaved || !isForeseen || acts.isBusy}
          onPress={() => void acts.publish(version)}
        >
          Publish changes to {readers}
        </Button>
      </header>
      <ul>
        {partsChanged(activity, inWork).map((part) => (
          <li key={part}>{sayPart(part, activity, inWork, dates.dateTime)}</li>
        ))}
      </ul>
      {isSaved && !isForeseen && !marks.error && <Small>Checking released marks…</Small>}
      {marks.error !== undefined && <ProblemStrip of={marks.error} onRetry={() => void marks.refetch()} />}
      {marks.currentData && <MarksForeseen foreseen={marks.currentData} />}
      {acts.refusal !== undefined && <ProblemStrip of={acts.refusal} />}
    </Strip>
  );
}

const dateWords = { opens: 'Opens', due: 'Due', closes: 'Closes' } as const;

function sayPart(
  part: ContentPart,
  before: ActivityContent,
  after: ActivityContent,
  sayDate: (at: string) => string,
): string {
  const date = (at: string | null) => (at === null ? 'no date' : sayDate(at));
  const points = (value: string | null) => (value === null ? 'not marked' : `${value} points`);
  switch (part) {
    case 'title':
      return `Title: ${before.title} → ${after.title}`;
    case 'opens':
    case 'due':
    case 'closes':
      return `${dateWords[part]}: ${date(before.schedule[part])} → ${date(after.schedule[part])}`;
    case 'points':
      return `${points(before.points)} → ${points(after.points)}`;
    case 'latePolicy':
      return `Late policy: ${sayLatePolicy(after.latePolicy)}`;
    case 'brief':
      return 'Text';
    case 'files':
      return after.files.length === 0
        ? 'No files'
        : `Files: ${after.files.map((file) => file.name).join(', ')}`;
    case 'rubric':
      return before.rubric === null ? 'Rubric added' : after.rubric === null ? 'Rubric removed' : 'Rubric';
    case 'settings':
      return 'Settings';
  }
}
