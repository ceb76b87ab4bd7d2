import { Suspense, useState } from 'react';
import { Radio, RadioGroup } from 'react-aria-components';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import type { GroupSetId } from '@jigsaw/core/ids';
import { isProblem, problemOf, ProblemStrip, saySaved, useAutosave } from '../api/index.js';
import { useListGroupSetsQuery } from '../groups/index.js';
import { Bar, Button, ButtonLink, DateTimeField, Emblem, Empty, Field, Muted, Page, Small, Tag, useNotice, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { useCourse } from '../track/index.js';
import { stateLook, stateWords } from './ActivitiesPage.js';
import { CopyPreview } from './CopyPreview.js';
import { useEditActivityMutation, useReadActivityQuery, useReadReachQuery, useReleaseActivityMutation, useWithdrawActivityMutation } from './releaseApi.js';

const Work = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 404px;
  min-height: 0;
`;
const Form = styled.div`
  background: var(--surface);
  overflow: auto;
  min-height: 0;
`;
const Part = styled.section`
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr);
  border-bottom: var(--hair);
  > header {
    padding: 14px 12px 12px 20px;
    border-right: var(--hair);
    background: var(--paper);
  }
  > header h2 {
    font: var(--h-22);
    font-size: 20px;
  }
  > header p {
    font: var(--t-12);
    color: var(--ink-2);
    margin-top: 2px;
  }
  > div {
    padding: 12px 20px;
    min-width: 0;
    display: grid;
    gap: 10px;
    align-content: start;
  }
  .title input {
    height: 38px;
    font: var(--h-17);
  }
  .when {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 8px;
  }
  .say {
    display: flex;
    align-items: center;
    flex-wrap: wrap;
    gap: 6px;
    line-height: 28px;
  }
  .emblems {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px;
  }
`;
const Mini = styled.input`
  width: 58px;
  height: 26px;
  padding: 0 8px;
  text-align: center;
  border: 1px solid var(--edge);
  border-radius: 5px;
  background: var(--surface);
  font-weight: 650;
`;
const Sets = styled(RadioGroup)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px;
`;
const SetChoice = styled(Radio)`
  border: 1px solid var(--line);
  border-radius: var(--r-2);
  padding: 7px 12px 8px;
  cursor: pointer;
  &[data-selected] {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
  }
  &[data-disabled] {
    color: var(--ink-3);
    cursor: not-allowed;
  }
  b {
    display: block;
    font-weight: 620;
  }
`;
const Outside = styled.details`
  summary {
    cursor: pointer;
    width: fit-content;
  }
  li {
    padding: 3px 0;
  }
`;

export function ComposerPage() {
  const { activityId = '' } = useParams();
  const activity = useReadActivityQuery(activityId);
  if (activity.data) return <Composer key={activityId} activity={activity.data} reload={() => activity.refetch().unwrap()} />;
  if (isProblem(activity.error, 'not-found')) return <Empty title="No such assignment">It may belong to another course.</Empty>;
  return activity.error ? <ProblemStrip of={activity.error} onRetry={() => void activity.refetch()} /> : <Waiting what="the assignment" rows={10} />;
}

const draftOf = ({ title, brief, points, schedule, latePolicy }: ActivityView): ActivityDraft => ({ title, brief, points, schedule, latePolicy });

/** What, Who, When and Marking on one page, with what a group will see beside it. */
function Composer({ activity, reload }: { readonly activity: ActivityView; readonly reload: () => Promise<ActivityView> }) {
  const { course, dates } = useCourse();
  const notice = useNotice();
  const [draft, setDraft] = useState<ActivityDraft>(() => draftOf(activity));
  const [version, setVersion] = useState(activity.version);
  const [edit] = useEditActivityMutation();
  const [release, releasing] = useReleaseActivityMutation();
  const [withdraw] = useWithdrawActivityMutation();
  const sets = useListGroupSetsQuery(course.id);
  const [chosenSet, setChosenSet] = useState<GroupSetId | null>(activity.release?.setId ?? null);
  // With several sets one is chosen on purpose: the wrong one would show the work to the wrong students.
  const onlySet = sets.data?.sets.length === 1 ? sets.data.sets[0]!.id : null;
  const setId = chosenSet ?? onlySet;
  const reach = useReadReachQuery({ activityId: activity.id, setId: setId ?? '' }, { skip: setId === null });

  const autosave = useAutosave<ActivityDraft>(async (value) => {
    const saved = await edit({ activityId: activity.id, body: { ...value, version } }).unwrap();
    setVersion(saved.version);
  });
  const change = (part: Partial<ActivityDraft>) => {
    const next = { ...draft, ...part };
    setDraft(next);
    if (next.title.trim() !== '' && Number(next.points) > 0) autosave.change(next);
  };
  const takeTheirs = async () => {
    const current = await reload();
    setDraft(draftOf(current));
    setVersion(current.version);
    autosave.settle();
  };
  const keepMine = async () => {
    const current = await reload();
    await edit({ activityId: activity.id, body: { ...draft, version: current.version } })
      .unwrap()
      .then((saved) => setVersion(saved.version));
    autosave.settle();
  };

  const state = activity.release?.state.state ?? 'draft';
  const isOut = state !== 'draft' && state !== 'withdrawn';
  const groups = reach.data?.groups ?? [];
  const outside = reach.data?.outside ?? [];
  const students = groups.reduce((sum, group) => sum + group.members, 0);

  const takeBack = async () => {
    await withdraw(activity.id).unwrap();
    notice(`${draft.title} withdrawn. What groups have done stays.`, { label: 'Release it again', do: () => void releaseNow() });
  };
  const releaseNow = async () => {
    if (setId === null || !(await autosave.flush())) return;
    const current = await reload();
    const answer = await release({ activityId: activity.id, body: { setId, goesLiveAt: null, version: current.version } });
    if ('data' in answer && answer.data)
      notice(`Released to ${groups.length} groups, ${students} students`, { label: 'Undo', do: () => void withdraw(activity.id) });
  };

  return (
    <Page>
      <Bar>
        <h1 style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{draft.title || 'Untitled'}</h1>
        <Tag $look={stateLook[state]}>{stateWords[state]}</Tag>
        <Small role="status">{saySaved(autosave.state, dates.time)}</Small>
        <span className="grow" />
        {isOut ? (
          <>
            {activity.release && (
              <ButtonLink kind="quiet" to={`../marks/${activity.release.id}`}>
                To the Marking desk
              </ButtonLink>
            )}
            <Button onPress={() => void takeBack()}>Withdraw</Button>
          </>
        ) : (
          <>
            {setId === null && <Muted>{sets.data?.sets.length === 0 ? 'Make a group set first' : 'Choose a group set first'}</Muted>}
            <Button kind="main" isDisabled={setId === null || releasing.isLoading || groups.length === 0} onPress={() => void releaseNow()}>
              {releasing.isLoading ? 'Releasing…' : setId === null ? 'Release' : `Release to ${groups.length} groups`}
            </Button>
          </>
        )}
      </Bar>
      <Work>
        <Form>
          {autosave.state.kind === 'failed' && <ProblemStrip onRetry={() => void autosave.flush()}>{autosave.state.sentence}</ProblemStrip>}
          {autosave.state.kind === 'conflict' && (
            <ProblemStrip>
              Someone else changed this assignment while you wrote. Yours is still here.{' '}
              <Button isSmall onPress={() => void keepMine()}>
                Save mine over it
              </Button>{' '}
              <Button isSmall onPress={() => void takeTheirs()}>
                Take theirs
              </Button>
            </ProblemStrip>
          )}
          {releasing.error && <ProblemStrip>{problemOf(releasing.error).detail}</ProblemStrip>}
          <Part>
            <header>
              <h2>What</h2>
              <p>Assignment, written once for all groups</p>
            </header>
            <div>
              <div className="title">
                <Field
                  label="Title"
                  value={draft.title}
                  onChange={(title) => change({ title })}
                  fault={draft.title.trim() === '' ? 'Give it a title; until then it is not saved.' : undefined}
                />
              </div>
              <Suspense fallback={<Waiting what="the editor" rows={3} />}>
                <RichTextEditor label="Brief" value={draft.brief} onChange={(brief) => change({ brief })} hasPlaceholders minHeight={170} />
              </Suspense>
            </div>
          </Part>
          <Part>
            <header>
              <h2>Who</h2>
              <p>{reach.data ? `${groups.length} groups, ${students} students` : 'Choose a group set'}</p>
            </header>
            <div>
              {sets.data?.sets.length === 0 && (
                <p>
                  There is no group set yet. <ButtonLink to="../groups/new">Make a group set</ButtonLink>
                </p>
              )}
              <Sets aria-label="Released to" value={setId} onChange={(value) => setChosenSet(value as GroupSetId)} isDisabled={activity.release !== null}>
                {(sets.data?.sets ?? []).map((set) => (
                  <SetChoice key={set.id} value={set.id}>
                    <b>{set.name}</b>
                    <Small>{set.groupCount} groups, each a copy of its own</Small>
                  </SetChoice>
                ))}
              </Sets>
              <div className="emblems">
                {groups.slice(0, 24).map((group) => (
                  <Emblem key={group.groupId} number={group.number} size={26} label={group.name} look={group.members === 0 ? 'dash' : 'solid'} />
                ))}
                {groups.length > 24 && <Small>and {groups.length - 24} more</Small>}
                {outside.length > 0 && <Tag $look="needs">{outside.length} unplaced see nothing</Tag>}
                {groups.some((group) => group.members === 0) && <Tag $look="warn">{groups.filter((group) => group.members === 0).length} groups are empty</Tag>}
              </div>
              {outside.length > 0 && (
                <Outside>
                  <summary>Who sees nothing, and why</summary>
                  <ul>
                    {outside.slice(0, 40).map((person, at) => (
                      <li key={at}>
                        <b>{person.name}</b> <Muted>{person.why.slice(1).join(' ')}</Muted>
                      </li>
                    ))}
                  </ul>
                </Outside>
              )}
            </div>
          </Part>
          <Part>
            <header>
              <h2>When</h2>
              <p>Times in {course.timeZone}</p>
            </header>
            <div>
              <div className="when">
                {(['opens', 'due', 'closes'] as const).map((which) => (
                  <DateTimeField
                    key={which}
                    label={{ opens: 'Opens to groups', due: 'Due', closes: 'Closes' }[which]}
                    value={draft.schedule[which]}
                    timeZone={course.timeZone}
                    onChange={(value) => change({ schedule: { ...draft.schedule, [which]: value } })}
                  />
                ))}
              </div>
              <Small>
                {draft.schedule.opens ? `Groups see nothing before ${dates.dateTime(draft.schedule.opens)}. ` : 'Groups see it as soon as it is released. '}
                {draft.schedule.closes ? 'After it closes they can read but no longer hand in.' : 'It never closes.'}
              </Small>
            </div>
          </Part>
          <Part>
            <header>
              <h2>Marking</h2>
              <p>One mark for the group</p>
            </header>
            <div>
              <p className="say">
                Marked out of
                <Mini aria-label="Points" inputMode="decimal" value={draft.points} onChange={(event) => change({ points: event.target.value })} /> points
              </p>
              <p className="say">
                Late work loses
                <PolicyNumber
                  label="Percent for each day begun"
                  value={draft.latePolicy.stepPercent}
                  onChange={(stepPercent) => change({ latePolicy: { ...draft.latePolicy, stepPercent } })}
                />
                % for each day begun, at most
                <PolicyNumber
                  label="Most percent"
                  value={draft.latePolicy.capPercent}
                  onChange={(capPercent) => change({ latePolicy: { ...draft.latePolicy, capPercent } })}
                />
                %; the first
                <PolicyNumber
                  label="Minutes of grace"
                  value={draft.latePolicy.graceMinutes}
                  onChange={(graceMinutes) => change({ latePolicy: { ...draft.latePolicy, graceMinutes } })}
                />
                minutes are free
              </p>
            </div>
          </Part>
        </Form>
        <CopyPreview draft={draft} groups={groups} dates={dates} />
      </Work>
    </Page>
  );
}

function PolicyNumber({ label, value, onChange }: { readonly label: string; readonly value: number; readonly onChange: (value: number) => void }) {
  return (
    <Mini aria-label={label} inputMode="numeric" value={value} onChange={(event) => onChange(Number(event.target.value.replace(/\D/g, '').slice(0, 5)))} />
  );
}
