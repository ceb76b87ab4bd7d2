import { styled } from 'styled-components';
import type { MarkView } from '@jigsaw/contract/marks';
import { sure } from '@jigsaw/core/lists';
import { rubricMark } from '@jigsaw/core/marks';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Field } from '../look/index.js';
import { valuesOf } from '../rooms/index.js';
import { RichText } from '../text/index.js';
import { RubricGrid } from './RubricGrid.js';
import type { MarkSheetActs } from './useMarkSheet.js';

const Feedback = styled.div`
  border-left: var(--hair);
  background: var(--surface);
  padding: 14px 16px;
  display: grid;
  gap: 12px;
  align-content: start;
  overflow: auto;
  .mark {
    display: grid;
    grid-template-columns: auto 1fr;
    align-items: end;
    gap: 8px;
  }
  .mark input {
    height: 48px;
    width: 108px;
    font: var(--h-32);
    font-size: 30px;
    text-align: right;
  }
  .mark > span {
    font: var(--h-22);
    color: var(--ink-2);
    padding-bottom: 10px;
  }
  details summary {
    cursor: pointer;
    font: var(--t-12);
    color: var(--ink-2);
  }
  details li {
    font: var(--t-12);
    padding: 3px 0;
    border-bottom: var(--hair);
  }
`;
const Suggested = styled.p`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  font: var(--t-13);
  padding: 6px 10px;
  background: var(--sunk);
  border-radius: var(--r-2);
`;

interface FeedbackSideProps {
  readonly mark: MarkView;
  readonly acts: MarkSheetActs;
  readonly mayMark: boolean;
}

/** The mark or its rubric, and what is said to those who get it. */
export function FeedbackSide({ mark, acts, mayMark }: FeedbackSideProps) {
  const { dates } = useCourse();
  const { copy, points: max } = mark;
  const { rubric } = copy;
  const { written, isGroup, who } = acts;
  return (
    <Feedback>
      {mark.isStale && (
        <ProblemStrip>New work came in after this mark. Look at it before you release.</ProblemStrip>
      )}
      {mark.beforeDue && (
        <ProblemStrip>
          {isGroup
            ? 'It is not due yet: the group may still work on it.'
            : 'It is not due yet: there may be more to come.'}
        </ProblemStrip>
      )}
      {rubric && (
        <RubricGrid
          rubric={rubric}
          picks={written.picks}
          points={max}
          sum={rubricMark(rubric, written.picks, max)}
          isDisabled={!mayMark}
          onPick={(picks) => acts.change({ picks })}
        />
      )}
      {rubric && !acts.isOverriding ? (
        mayMark && (
          <Button kind="quiet" isSmall onPress={acts.override}>
            Give a different mark…
          </Button>
        )
      ) : (
        <>
          <div className="mark">
            <Field
              label={rubric ? 'Mark instead of the rubric’s' : isGroup ? 'Group mark' : 'Mark'}
              inputMode="decimal"
              value={acts.markText}
              onChange={acts.changeMark}
              fault={acts.markFault}
              isDisabled={!mayMark}
            />
            <span>of {max}</span>
          </div>
          {rubric && (
            <>
              <Field
                label="Reason, shown to students"
                value={written.overrideReason}
                onChange={(overrideReason) => acts.change({ overrideReason })}
                isDisabled={!mayMark}
                placeholder="Needed before release"
              />
              {mayMark && (
                <Button kind="quiet" isSmall onPress={acts.backToRubric}>
                  Use the rubric’s mark
                </Button>
              )}
            </>
          )}
        </>
      )}
      {mark.suggestion && (
        <Suggested>
          <span>
            Suggested mark <b>{mark.suggestion.mark}</b>: {mark.suggestion.why}.
          </span>
          {mayMark && !rubric && written.typedMark !== mark.suggestion.mark && (
            <Button isSmall onPress={() => acts.changeMark(sure(mark.suggestion).mark)}>
              Use {mark.suggestion.mark}
            </Button>
          )}
        </Suggested>
      )}
      <Field
        label={isGroup ? `Feedback to all ${mark.members.length}` : `Feedback to ${who}`}
        lines={rubric ? 3 : 7}
        value={written.feedback}
        onChange={(feedback) => acts.change({ feedback })}
        isDisabled={!mayMark}
        placeholder="What works, and what to do next time"
      />
      <details>
        <summary>Requirement</summary>
        <RichText node={copy.brief} values={valuesOf(copy)} />
      </details>
      {mark.history.length > 0 && (
        <details>
          <summary>Who changed this mark, and when</summary>
          <ul>
            {mark.history.map((each, at) => (
              <li key={at}>
                {dates.dateTime(each.at)}, {each.by}: {each.what}
              </li>
            ))}
          </ul>
        </details>
      )}
    </Feedback>
  );
}
