import { ArrowRight } from 'lucide-react';
import { Suspense, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { MarkView } from '@jigsaw/contract/marks';
import type { AdjustmentShape, DeskRow, SaveMark } from '@jigsaw/contract/marks';
import { sayMinutes } from '@jigsaw/core/handin';
import type { Adjustment } from '@jigsaw/core/marks';
import { markFrom, personMark, rubricMark } from '@jigsaw/core/marks';
import { ProblemStrip } from '../api/index.js';
import { saySaved, useAutosave, useAct } from '../page/index.js';
import { valuesOf } from '../rooms/index.js';
import { kindOf } from '../kinds/index.js';
import { Button, Field, hueOfGroup, Small, Spoken, Tag, Waiting } from '../look/index.js';
import { RichText } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { MemberTable } from './MemberTable.js';
import { SumPiece, SumStrip } from './MarkSum.js';
import { RubricGrid } from './RubricGrid.js';
import { useRecallMarksMutation, useReleaseMarksMutation, useSaveMarkMutation } from './marksApi.js';
import { counted } from '@jigsaw/core/text';

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
const Sums = styled.div`
  grid-column: 1 / -1;
  border-top: 1px solid var(--ink);
  background: var(--surface);
  min-height: 0;
`;
const Foot = styled.footer`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  padding: 6px var(--s-4);
  border-top: var(--hair);
  background: var(--paper);
  .grow {
    flex: 1;
  }
`;

type Sheet = Pick<SaveMark, 'typedMark' | 'overrideReason' | 'picks' | 'feedback'> & {
  readonly adjustments: ReadonlyMap<string, AdjustmentShape>;
};

const sheetOf = (mark: MarkView): Sheet => ({
  typedMark: mark.typedMark,
  overrideReason: mark.overrideReason,
  picks: mark.picks,
  feedback: mark.feedback,
  adjustments: new Map(
    mark.members.flatMap(({ member, adjustment }) =>
      adjustment ? [[member.enrolmentId, adjustment] as const] : [],
    ),
  ),
});

const isNumber = (text: string) => /^-?\d{1,5}(\.\d{1,2})?$/.test(text);

interface MarkSheetProps {
  readonly mark: MarkView;
  readonly next: DeskRow | null;
  readonly base: string;
  readonly reload: () => Promise<MarkView>;
}

/** The work, one mark for the group or the student, what differs for whom and why, and the sum that each member will see. */
export function MarkSheet({ mark, next, base, reload }: MarkSheetProps) {
  const { course, dates } = useCourse();
  const navigate = useNavigate();
  const mayMark = course.role === 'instructor' || course.role === 'assistant';
  const [sheet, setSheet] = useState<Sheet>(() => sheetOf(mark));
  const [markText, setMarkText] = useState(mark.typedMark ?? '');
  const [version, setVersion] = useState(mark.version);
  const [save] = useSaveMarkMutation();
  const { copy, unit, points: max } = mark;
  const { rubric } = copy;
  const isGroup = unit === 'group';
  const kind = kindOf(copy.kind);
  const [isOverriding, setIsOverriding] = useState(mark.typedMark !== null);

  const count = mark.members.length;
  const who = isGroup ? (copy.group?.name ?? 'all') : (mark.members[0]?.member.name ?? 'the student');
  const recall = useAct(useRecallMarksMutation());
  const release = useAct(useReleaseMarksMutation(), {
    says: () => `Released to ${isGroup ? sayStudents(count) : who}`,
    undo: () => () => recall({ copyId: copy.id, unit }),
    undoLabel: 'Take it back',
    isRefusalShown: true,
  });

  const autosave = useAutosave<Sheet>(async (value) => {
    const saved = await save({ copyId: copy.id, unit, body: bodyOf(value, version) }).unwrap();
    setVersion(saved.version);
  });
  const change = (part: Partial<Sheet>) => {
    const nextSheet = { ...sheet, ...part };
    setSheet(nextSheet);
    release.reset();
    autosave.change(nextSheet);
  };
  const markFault = faultOfMark(markText, max);
  const changeMark = (text: string) => {
    const tidy = text.replace(',', '.').trim();
    setMarkText(tidy);
    if (faultOfMark(tidy, max) === undefined) change({ typedMark: tidy === '' ? null : tidy });
  };
  const adjust = (enrolmentId: string, adjustment: AdjustmentShape | null) => {
    const adjustments = new Map(sheet.adjustments);
    if (adjustment) adjustments.set(enrolmentId, adjustment);
    else adjustments.delete(enrolmentId);
    change({ adjustments });
  };
  const takeTheirs = async () => {
    const current = await reload();
    setSheet(sheetOf(current));
    setMarkText(current.typedMark ?? '');
    setVersion(current.version);
    autosave.settle();
  };
  const keepMine = async () => {
    const current = await reload();
    const saved = await save({ copyId: copy.id, unit, body: bodyOf(sheet, current.version) }).unwrap();
    setVersion(saved.version);
    autosave.settle();
  };

  const groupMark = markFrom({ rubric, picks: sheet.picks, points: max, typed: sheet.typedMark });
  const ofRubric = rubric && rubricMark(rubric, sheet.picks, max);
  const backToRubric = () => {
    setIsOverriding(false);
    setMarkText('');
    change({ typedMark: null, overrideReason: '' });
  };

  // The same function that the server runs, so that the sum on the screen is the sum that is released.
  const results = useMemo(
    () =>
      new Map(
        mark.members.map(({ member }) => {
          const adjustment = (sheet.adjustments.get(member.enrolmentId) ?? null) as Adjustment | null;
          return [
            member.enrolmentId as string,
            personMark({ groupMark, lateDeduction: mark.lateDeduction, max, adjustment }),
          ];
        }),
      ),
    [mark.members, mark.lateDeduction, sheet, groupMark, max],
  );
  const net =
    groupMark === null ? null : personMark({ groupMark, lateDeduction: mark.lateDeduction, max }).mark;
  const isChangedSinceRelease =
    mark.releasedAt !== null && version !== mark.version
      ? true
      : mark.releasedAt !== null && mark.state !== 'released';
  const isComplete =
    groupMark !== null ||
    mark.members.every(({ member }) =>
      ['separate', 'excused'].includes(sheet.adjustments.get(member.enrolmentId)?.kind ?? ''),
    );
  const isReleased = mark.releasedAt !== null && !isChangedSinceRelease;

  const releaseNow = async () => {
    if (!(await autosave.flush())) return;
    const current = await reload();
    const released = await release({ copyId: copy.id, unit, version: current.version });
    if (released) setVersion(released.version);
  };
  const theirs =
    autosave.state.kind === 'conflict' ? MarkView.safeParse(autosave.state.current).data : undefined;

  return (
    <Frame
      style={copy.group ? hueOfGroup(copy.group.number) : undefined}
      data-rubric={rubric ? true : undefined}
    >
      <Doc tabIndex={0} role="region" aria-label={`${who}’s work`}>
        <article>
          <Suspense fallback={<Waiting what="the work" rows={5} />}>
            {kind && <kind.Work head={copy} student={isGroup ? null : unit} />}
          </Suspense>
        </article>
      </Doc>
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
            picks={sheet.picks}
            points={max}
            sum={ofRubric}
            isDisabled={!mayMark}
            onPick={(picks) => change({ picks })}
          />
        )}
        {rubric && !isOverriding ? (
          mayMark && (
            <Button kind="quiet" isSmall onPress={() => setIsOverriding(true)}>
              Give another mark than the rubric’s…
            </Button>
          )
        ) : (
          <>
            <div className="mark">
              <Field
                label={rubric ? 'In place of the rubric’s mark' : isGroup ? 'Group mark' : 'Mark'}
                inputMode="decimal"
                value={markText}
                onChange={changeMark}
                fault={markFault}
                isDisabled={!mayMark}
              />
              <span>of {max}</span>
            </div>
            {rubric && (
              <>
                <Field
                  label="Why, told to students"
                  value={sheet.overrideReason}
                  onChange={(overrideReason) => change({ overrideReason })}
                  isDisabled={!mayMark}
                  placeholder="The reason; without one it cannot be released"
                />
                {mayMark && (
                  <Button kind="quiet" isSmall onPress={backToRubric}>
                    Back to the rubric’s mark
                  </Button>
                )}
              </>
            )}
          </>
        )}
        {mark.suggestion && (
          <Suggested>
            <span>
              What is asked comes to <b>{mark.suggestion.mark}</b>: {mark.suggestion.why}.
            </span>
            {mayMark && !rubric && sheet.typedMark !== mark.suggestion.mark && (
              <Button isSmall onPress={() => changeMark(mark.suggestion!.mark)}>
                Take {mark.suggestion.mark}
              </Button>
            )}
          </Suggested>
        )}
        <Field
          label={isGroup ? `What you say to all ${count}` : `What you say to ${who}`}
          lines={rubric ? 3 : 7}
          value={sheet.feedback}
          onChange={(feedback) => change({ feedback })}
          isDisabled={!mayMark}
          placeholder="What works, and what to do next time"
        />
        <details>
          <summary>What they were asked to do</summary>
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
      <Sums>
        <SumStrip $height={56}>
          <SumPiece
            height={56}
            figure={
              <>
                {groupMark ?? '–'} <small>/ {max}</small>
              </>
            }
            says={sheet.typedMark === null && rubric ? 'from the rubric' : isGroup ? 'group mark' : 'mark'}
          />
          <SumPiece
            height={56}
            look={mark.lateMinutes > 0 ? 'late' : 'plain'}
            figure={mark.lateDeduction === '0' ? '0' : `−${mark.lateDeduction}`}
            says={mark.lateMinutes > 0 ? `late ${sayMinutes(mark.lateMinutes)}` : 'for lateness'}
          />
          <SumPiece
            height={56}
            look="net"
            figure={net ?? '–'}
            says={isGroup ? 'for each member' : `for ${who}`}
          />
          <div style={{ padding: '10px 28px', font: 'var(--t-12)' }}>
            {isGroup ? (
              <>
                <b>Each student: {net ?? 'that mark'} and what you adjust</b>, never above {max}.
                <br />
                Students see their own mark and your reason, never a teammate’s.
              </>
            ) : (
              <>Seen by {who} alone, never by the others, and by nobody before you release it.</>
            )}
          </div>
        </SumStrip>
        <MemberTable
          members={mark.members}
          adjustments={sheet.adjustments}
          results={results}
          max={max}
          onAdjust={adjust}
          isDisabled={!mayMark}
          isGroup={isGroup}
        />
        {release.error !== undefined && <ProblemStrip of={release.error} />}
        {autosave.state.kind === 'failed' && (
          <ProblemStrip onRetry={() => void autosave.flush()}>{autosave.state.sentence}</ProblemStrip>
        )}
        {autosave.state.kind === 'conflict' && (
          <ProblemStrip>
            Someone else marked this meanwhile
            {theirs ? `: they gave ${theirs.groupMark ?? 'no mark'}, you ${groupMark ?? 'none'}` : ''}. Yours
            is still here.{' '}
            <Button isSmall onPress={() => void keepMine()}>
              Save mine over it
            </Button>{' '}
            <Button isSmall onPress={() => void takeTheirs()}>
              Take theirs
            </Button>
          </ProblemStrip>
        )}
        <Foot>
          <Small role="status">
            {mayMark ? saySaved(autosave.state, dates.time) : 'You may look, not mark'}
          </Small>
          {mark.releasedAt && (
            <Tag $look={isReleased ? 'solid' : 'warn'}>
              {isReleased
                ? `Released ${dates.dateTime(mark.releasedAt)}`
                : 'Changed since release: students see the earlier mark'}
            </Tag>
          )}
          <span className="grow" />
          {mayMark && (
            <>
              {mark.releasedAt && (
                <Button kind="quiet" onPress={() => void recall({ copyId: copy.id, unit })}>
                  Take back from {sayStudents(count)}
                </Button>
              )}
              {!isComplete && (
                <Small>
                  {rubric
                    ? 'Pick a level for every criterion first'
                    : isGroup
                      ? 'Give the group a mark first'
                      : 'Give a mark first'}
                </Small>
              )}
              <Button
                kind="main"
                isDisabled={
                  markFault !== undefined || !isComplete || isReleased || release.isBusy || count === 0
                }
                onPress={() => void releaseNow()}
              >
                {isReleased ? 'Released' : `Release to ${isGroup ? sayStudents(count) : who}`}
              </Button>
            </>
          )}
          {next && (
            <Button onPress={() => void navigate(`${base}/${next.copyId}/${next.unit}`)}>
              Next to mark<Spoken>, {next.student?.name ?? next.group?.name}</Spoken>
              <ArrowRight size={15} aria-hidden="true" />
            </Button>
          )}
        </Foot>
      </Sums>
    </Frame>
  );
}

const sayStudents = (count: number) => counted(count, 'student');

function faultOfMark(text: string, max: string): string | undefined {
  if (text === '') return undefined;
  if (!isNumber(text)) return 'Write a number, like 31.5.';
  return Number(text) > Number(max) || Number(text) < 0 ? `From 0 to ${max}.` : undefined;
}

function bodyOf(sheet: Sheet, version: number): SaveMark {
  const adjustments = [...sheet.adjustments].map(([enrolmentId, adjustment]) => ({
    enrolmentId: enrolmentId as SaveMark['adjustments'][number]['enrolmentId'],
    adjustment,
  }));
  const { typedMark, overrideReason, picks, feedback } = sheet;
  return { typedMark, overrideReason, picks, feedback, adjustments, version };
}
