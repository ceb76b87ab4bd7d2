import { useEffect, useState } from 'react';
import { styled } from 'styled-components';
import type { MyMark, MyMarks } from '@jigsaw/contract/marks';
import { sayLatePolicy, sayMinutes } from '@jigsaw/core/handin';
import { ProblemStrip, unshown } from '../api/index.js';
import { Emblem, Empty, hueOfGroup, Small, Tag, Waiting } from '../look/index.js';
import { RubricTable } from '../rubric/index.js';
import { useCourse } from '../course/index.js';
import { SumPiece, SumStrip } from './MarkSum.js';
import { useMarkSeenMarksMutation, useReadMyMarksQuery } from './marksApi.js';
import { sayStep, signed } from './words.js';

const Frame = styled.main`
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  min-height: 0;
  @media (max-width: 700px) {
    display: flex;
    flex-direction: column-reverse;
  }
`;
const List = styled.nav`
  border-right: 1px solid var(--ink);
  background: var(--surface);
  overflow: auto;
  > h1 {
    padding: 18px 24px 12px 32px;
    border-bottom: 1px solid var(--ink);
  }
  button {
    display: grid;
    grid-template-columns: 30px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    width: 100%;
    min-height: 58px;
    padding: 8px 24px 8px 28px;
    border: 0;
    border-bottom: var(--hair);
    background: none;
    text-align: left;
    cursor: pointer;
    outline-offset: -3px;
  }
  button:hover {
    background: var(--wash);
  }
  button[aria-current] {
    background: var(--hue-tint);
    box-shadow: inset 4px 0 var(--hue);
  }
  b {
    display: block;
    font: 620 15px/19px var(--font-text);
  }
  strong {
    font: 680 18px/1 var(--font-head);
  }
  strong small {
    font: 400 12px/1 var(--font-text);
    color: var(--ink-2);
  }
  > p {
    padding: 12px 24px 12px 32px;
    font: var(--t-13);
    color: var(--ink-2);
    border-bottom: var(--hair);
  }
  @media (max-width: 700px) {
    border-right: 0;
    border-top: 1px solid var(--ink);
  }
`;
const One = styled.section`
  overflow: auto;
  min-width: 0;
  > header {
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 14px 32px 12px 28px;
  }
  > header h2 {
    font: var(--h-32);
    font-size: 28px;
  }
  > header p {
    font: var(--t-13);
    color: var(--ink-2);
  }
  > div:nth-child(2) {
    border-top: 1px solid var(--ink);
    border-bottom: 1px solid var(--ink);
  }
  .in {
    padding: 20px 32px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
    gap: 32px;
  }
  .in > .wide {
    grid-column: 1 / -1;
    min-width: 0;
  }
  h3 {
    margin-bottom: 6px;
  }
  ol li {
    padding: 6px 0;
    border-bottom: var(--hair);
  }
  .said {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    > header {
      padding: 12px 16px;
    }
    .in {
      grid-template-columns: 1fr;
      padding: 16px;
      gap: 18px;
    }
  }
`;
const height = 96;

/** Being shown a new mark is what makes it no longer new; said once for each. */
function useSeen(courseId: string, marks: MyMarks['marks']): void {
  const [markSeen] = useMarkSeenMarksMutation();
  const until = marks.reduce(
    (last, mark) => (mark.isNew && mark.releasedAt > last ? mark.releasedAt : last),
    '',
  );
  useEffect(() => {
    if (until !== '') void markSeen({ courseId, until });
  }, [courseId, until, markSeen]);
}

/** A student's own marks: the group's, theirs, and how one became the other. */
export function MyMarksPage() {
  const { course, dates } = useCourse();
  const mine = useReadMyMarksQuery(course.id, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string | null>(null);
  useSeen(course.id, mine.data?.marks ?? []);
  if (unshown(mine) !== undefined)
    return <ProblemStrip of={mine.error} onRetry={() => void mine.refetch()} />;
  if (!mine.data) return <Waiting what="your marks" />;
  const { marks, waiting } = mine.data;
  const open = marks.find((mark) => mark.copyId === chosen) ?? marks[0];
  if (!open) {
    return (
      <Empty title="No marks yet">
        Marks appear here when they are released, never before.
        {waiting.length > 0 && ` Being marked: ${waiting.map((each) => each.title).join(', ')}.`}
      </Empty>
    );
  }
  return (
    <Frame>
      <List aria-label="Your marks">
        <h1>Your marks</h1>
        {marks.map((mark) => (
          <button
            key={mark.copyId}
            type="button"
            style={mark.group ? hueOfGroup(mark.group.number) : undefined}
            aria-current={mark === open ? 'true' : undefined}
            onClick={() => setChosen(mark.copyId)}
          >
            {mark.group ? <Emblem number={mark.group.number} size={28} /> : <span />}
            <span>
              <b>{mark.title}</b>
              <Small>{mark.group?.name ?? 'For all'}</Small> {mark.isNew && <Tag $look="solid">new</Tag>}
            </span>
            <strong>
              {mark.mark ?? 'excused'} <small>/ {mark.points}</small>
            </strong>
          </button>
        ))}
        {waiting.map((each, at) => (
          <p key={at}>{each.title}: done, being marked</p>
        ))}
        <p>Marks appear here when they are released, never before.</p>
      </List>
      <OneMark mark={open} dates={dates} />
    </Frame>
  );
}

function OneMark({
  mark,
  dates,
}: {
  readonly mark: MyMark;
  readonly dates: ReturnType<typeof useCourse>['dates'];
}) {
  const late = mark.steps.find((step) => step.code === 'late');
  const adjusted = mark.steps.find((step) => step.code === 'adjusted');
  const isOwn = mark.steps.some((step) => step.code === 'separate' || step.code === 'excused');
  return (
    <One aria-label={mark.title} style={mark.group ? hueOfGroup(mark.group.number) : undefined}>
      <header>
        {mark.group && <Emblem number={mark.group.number} size={48} />}
        <div>
          <h2>{mark.title}</h2>
          <p>
            {mark.group?.name ?? 'For all'}
            {mark.handedInAt ? `, work of ${dates.dateTime(mark.handedInAt)}` : ', nothing handed in'} ·
            marked by {mark.markedBy}, {dates.dateTime(mark.releasedAt)}
          </p>
        </div>
      </header>
      <SumStrip $height={height}>
        {mark.groupMark !== null && (
          <SumPiece
            height={height}
            figure={
              <>
                {mark.groupMark} <small>/ {mark.points}</small>
              </>
            }
            says={mark.markFor === 'group' ? 'group mark' : 'for the work'}
          />
        )}
        {!isOwn && late && (
          <SumPiece
            height={height}
            look="late"
            figure={`−${late.deduction}`}
            says={`late ${sayMinutes(mark.lateMinutes)}`}
          />
        )}
        {!isOwn && adjusted && (
          <SumPiece height={height} look="net" figure={signed(adjusted.by)} says="for you" />
        )}
        <SumPiece
          height={height}
          look="own"
          isLast
          figure={
            mark.mark === null ? (
              'Excused'
            ) : (
              <>
                {mark.mark} <small>/ {mark.points}</small>
              </>
            )
          }
          says="your mark"
        />
      </SumStrip>
      <div className="in">
        <div>
          <h3>How this mark was reached</h3>
          <ol>
            {mark.steps.map((step, at) => (
              <li key={at}>{sayStep(step, mark.markFor)}</li>
            ))}
          </ol>
          {mark.steps.length > 1 && <Small>Rounded once, at the end.</Small>}
          {late && mark.latePolicy && <p>{sayLatePolicy(mark.latePolicy)}</p>}
        </div>
        <div>
          <h3>{mark.markFor === 'group' ? 'Feedback to your group' : 'Feedback to you'}</h3>
          <p className="said">{mark.feedback || 'No written feedback.'}</p>
        </div>
        {mark.rubric && (
          <div className="wide">
            <RubricTable rubric={mark.rubric.rubric} points={mark.points} picks={mark.rubric.picks} />
          </div>
        )}
      </div>
    </One>
  );
}
