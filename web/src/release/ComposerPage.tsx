import { Suspense, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import { ActivityDraft as Draft } from '@jigsaw/contract/release';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { isProblem, problemOf, ProblemStrip } from '../api/index.js';
import { saySaved, useAutosave, useAct } from '../page/index.js';
import { useListGroupSetsQuery } from '../sets/index.js';
import { kindOf, kinds } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Empty,
  Field,
  Muted,
  Page,
  Part,
  Small,
  Tag,
  Waiting,
} from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { stateLook, stateWords } from './ActivitiesPage.js';
import type { Aim } from './releaseTarget.js';
import { firstAim, isSameAim } from './releaseTarget.js';
import { CopyButton } from './CopyButton.js';
import { CopyPreview } from './CopyPreview.js';
import { MarkingPart } from './MarkingPart.js';
import {
  useChangeReachMutation,
  useCopyActivityMutation,
  useEditActivityMutation,
  useForeseeQuery,
  useReadActivityQuery,
  useReleaseActivityMutation,
  useWithdrawActivityMutation,
} from './releaseApi.js';
import { WhenPart } from './WhenPart.js';
import { WhoPart } from './WhoPart.js';
import { counted } from '@jigsaw/core/text';

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
const Kinds = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  button {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    height: var(--ctl);
    padding: 0 12px;
    border: 1px solid transparent;
    border-radius: var(--r-2);
    background: none;
    font: 550 13px/1 var(--font-text);
    cursor: pointer;
  }
  button:hover {
    background: var(--wash);
  }
  button[aria-pressed='true'] {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
    font-weight: 650;
  }
`;

export function ComposerPage() {
  const { activityId = '' } = useParams();
  const activity = useReadActivityQuery(activityId);
  if (activity.currentData)
    return (
      <Composer key={activityId} activity={activity.currentData} reload={() => activity.refetch().unwrap()} />
    );
  if (isProblem(activity.error, 'not-found'))
    return <Empty title="No such activity">It may belong to another course.</Empty>;
  return activity.error ? (
    <ProblemStrip of={activity.error} onRetry={() => void activity.refetch()} />
  ) : (
    <Waiting what="the activity" rows={10} />
  );
}

const draftOf = ({
  kind,
  title,
  brief,
  points,
  rubric,
  schedule,
  latePolicy,
  settings,
}: ActivityView): ActivityDraft => ({
  kind,
  title,
  brief,
  points,
  rubric,
  schedule,
  latePolicy,
  settings,
});

/** What keeps a draft from being saved for the moment; it stays on the page as it was typed. */
function faultOf(draft: ActivityDraft, kind: KindOnPages | undefined): string | null {
  const issue =
    Draft.safeParse(draft).error?.issues[0] ?? kind?.settings.safeParse(draft.settings).error?.issues[0];
  return issue?.message ?? null;
}

/** What, How, Who, When and Marking on one page, with what a group will see beside it. */
function Composer({
  activity,
  reload,
}: {
  readonly activity: ActivityView;
  readonly reload: () => Promise<ActivityView>;
}) {
  const { course, dates } = useCourse();
  const navigate = useNavigate();
  const [draft, setDraft] = useState<ActivityDraft>(() => draftOf(activity));
  const [version, setVersion] = useState(activity.version);
  const [goesLiveAt, setGoesLiveAt] = useState<string | null>(null);
  const [edit] = useEditActivityMutation();
  const sets = useListGroupSetsQuery(course.id);
  const kind = kindOf(draft.kind);
  const settings: unknown = kind?.settings.safeParse(draft.settings).data ?? draft.settings;
  const allowed = kind && kind.settings.safeParse(draft.settings).success ? kind.modes(settings) : [];

  const setIds = (sets.data?.sets ?? []).map((set) => set.id);
  const [meant, setMeant] = useState<Aim | null>(null);
  const [params] = useSearchParams();
  const aim = meant ?? firstAim(activity.release, setIds, params.get('for'));
  const isAllowed = allowed.includes(aim.mode);
  const to = isAllowed ? aim.to : null;
  const reach = useForeseeQuery(
    { activityId: activity.id, body: { to: to!, mode: aim.mode, outsiders: aim.outsiders } },
    { skip: to === null },
  );
  const reached = to === null ? undefined : reach.data;

  const autosave = useAutosave<ActivityDraft>(async (value) => {
    const saved = await edit({ activityId: activity.id, body: { ...value, version } }).unwrap();
    setVersion(saved.version);
  });
  const change = (part: Partial<ActivityDraft>) => {
    const next = { ...draft, ...part };
    setDraft(next);
    if (faultOf(next, kindOf(next.kind)) === null) autosave.change(next);
  };
  const chooseKind = (next: KindOnPages) => {
    if (next.name === draft.kind) return;
    change({
      kind: next.name,
      settings: next.settings.parse({}) as ActivityDraft['settings'],
      points: next.usualPoints,
      rubric: next.usualPoints === null ? null : draft.rubric,
    });
    if (!next.modes(next.settings.parse({})).includes(aim.mode))
      setMeant({ ...aim, mode: 'own', to: aim.to?.kind === 'class' ? null : aim.to });
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
  const fault = faultOf(draft, kind);
  const groups = reached?.groups.filter((group) => group.isIn) ?? [];
  const students = reached?.students ?? 0;
  const isClass = to?.kind === 'class';
  const whom = isClass
    ? `the class, ${students} students`
    : `${counted(groups.length, 'group')}, ${students} students`;

  const withdraw = useAct(useWithdrawActivityMutation(), {
    says: () => `${draft.title} withdrawn. What was done in it stays.`,
    undo: () => releaseNow,
    undoLabel: 'Release it again',
  });
  const release = useAct(useReleaseActivityMutation(), {
    says: () =>
      `${goesLiveAt ? `Will be released on ${dates.dateTime(goesLiveAt)} to ` : 'Released to '}${whom}`,
    undo: () => () => withdraw(activity.id),
    isRefusalShown: true,
  });
  const reachNow = activity.release && {
    to: activity.release.to,
    outsiders: activity.release.outsiders,
  };
  const changeReach = useAct(useChangeReachMutation(), {
    says: () => `Now reaches ${whom}`,
    inverse: (asked) => ({ ...asked, body: reachNow ?? asked.body }),
    isRefusalShown: true,
  });
  const makeCopy = useAct(useCopyActivityMutation());
  const releaseNow = async () => {
    if (to === null || !(await autosave.flush())) return;
    const current = await reload();
    await release({
      activityId: activity.id,
      body: { to, mode: aim.mode, outsiders: aim.outsiders, goesLiveAt, version: current.version },
    });
  };
  const applyReach = async () => {
    if (to === null || !activity.release) return;
    if (await changeReach({ activityId: activity.id, body: { to, outsiders: aim.outsiders } }))
      setMeant(null);
  };
  const copyIt = async (setId: string | null) => {
    const copy = await makeCopy({ activityId: activity.id, body: { keepsTitle: setId !== null } });
    if (copy) void navigate(`../release/${copy.id}${setId === null ? '' : `?for=${setId}`}`);
  };
  const isReachChanged = isOut && !isSameAim(aim, firstAim(activity.release, setIds));
  const why = sayWhyNot({
    hasSets: setIds.length > 0,
    mayClass: allowed.includes('common'),
    isAllowed,
    to,
    fault,
  });
  const label = goesLiveAt ? ` on ${dates.dateTime(goesLiveAt)}` : '';

  return (
    <Page>
      <Bar>
        <h1 style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {draft.title || 'Untitled'}
        </h1>
        <Tag $look={stateLook[state]}>{stateWords[state]}</Tag>
        <Small role="status">{fault === null ? saySaved(autosave.state, dates.time) : 'Not saved yet'}</Small>
        <span className="grow" />
        <CopyButton
          sets={
            isOut
              ? (sets.data?.sets ?? []).filter((set) => aim.to?.kind === 'class' || aim.to?.setId !== set.id)
              : []
          }
          onCopy={(setId) => void copyIt(setId)}
        />
        {isOut ? (
          <>
            {activity.release && activity.points !== null && (
              <ButtonLink kind="quiet" to={`../marks/${activity.release.id}`}>
                To the Marking desk
              </ButtonLink>
            )}
            <Button onPress={() => void withdraw(activity.id)}>Withdraw</Button>
            {isReachChanged && (
              <Button
                kind="main"
                isDisabled={to === null || changeReach.isBusy}
                onPress={() => void applyReach()}
              >
                Change to {isClass ? 'the class' : `${groups.length} groups`}
              </Button>
            )}
          </>
        ) : (
          <>
            {why && <Muted>{why}</Muted>}
            <Button
              kind="main"
              isDisabled={why !== null || release.isBusy || reached === undefined}
              onPress={() => void releaseNow()}
            >
              {release.isBusy
                ? 'Releasing…'
                : to === null
                  ? 'Release'
                  : isClass
                    ? `Release to the class${label}`
                    : `Release to ${counted(groups.length, 'group')}${label}`}
            </Button>
          </>
        )}
      </Bar>
      <Work>
        <Form>
          {autosave.state.kind === 'failed' && (
            <ProblemStrip onRetry={() => void autosave.flush()}>{autosave.state.sentence}</ProblemStrip>
          )}
          {autosave.state.kind === 'conflict' && (
            <ProblemStrip>
              Someone else changed this while you wrote. Yours is still here.{' '}
              <Button isSmall onPress={() => void keepMine()}>
                Save mine over it
              </Button>{' '}
              <Button isSmall onPress={() => void takeTheirs()}>
                Take theirs
              </Button>
            </ProblemStrip>
          )}
          {(release.error ?? changeReach.error) !== undefined && (
            <ProblemStrip>{problemOf(release.error ?? changeReach.error).detail}</ProblemStrip>
          )}
          <Part>
            <header>
              <h2>What</h2>
              <p>{kind?.word ?? draft.kind}, written once for all groups</p>
            </header>
            <div>
              <div className="title">
                <Field
                  label="Title"
                  value={draft.title}
                  onChange={(title) => change({ title })}
                  fault={
                    draft.title.trim() === '' ? 'Give it a title; until then it is not saved.' : undefined
                  }
                />
              </div>
              {activity.release === null && (
                <Kinds role="group" aria-label="Kind">
                  {kinds.map((each) => (
                    <button
                      key={each.name}
                      type="button"
                      aria-pressed={each.name === draft.kind}
                      onClick={() => chooseKind(each)}
                      title={each.says}
                    >
                      <each.icon size={17} aria-hidden="true" />
                      {each.word}
                    </button>
                  ))}
                </Kinds>
              )}
              <Suspense fallback={<Waiting what="the editor" rows={3} />}>
                <RichTextEditor
                  label="Brief"
                  value={draft.brief}
                  onChange={(brief) => change({ brief })}
                  hasPlaceholders
                  minHeight={110}
                />
              </Suspense>
            </div>
          </Part>
          {kind?.SettingsForm && (
            <Part>
              <header>
                <h2>How</h2>
                <p>{kind.says}</p>
              </header>
              <div>
                <Suspense fallback={<Waiting what="the settings" rows={3} />}>
                  <kind.SettingsForm
                    key={draft.kind}
                    settings={settings}
                    onChange={(next) => change({ settings: next as ActivityDraft['settings'] })}
                  />
                </Suspense>
              </div>
            </Part>
          )}
          <WhoPart
            aim={aim}
            kind={kind}
            allowed={allowed}
            sets={sets.data?.sets ?? []}
            reach={reached}
            isReleased={activity.release !== null}
            onChange={setMeant}
          />
          <WhenPart
            activity={activity}
            draft={draft}
            groups={reached?.groups ?? []}
            goesLiveAt={goesLiveAt}
            isOut={isOut}
            onSchedule={(schedule) => change({ schedule })}
            onGoesLive={setGoesLiveAt}
          />
          <MarkingPart
            draft={draft}
            kind={kind}
            markFor={
              aim.mode === 'common'
                ? 'student'
                : kind && allowed.length > 0
                  ? kind.markFor(settings)
                  : 'group'
            }
            onChange={change}
          />
        </Form>
        <CopyPreview draft={draft} kind={kind} aim={aim} groups={groups} dates={dates} />
      </Work>
    </Page>
  );
}

function sayWhyNot({
  hasSets,
  mayClass,
  isAllowed,
  to,
  fault,
}: {
  hasSets: boolean;
  mayClass: boolean;
  isAllowed: boolean;
  to: Aim['to'];
  fault: string | null;
}): string | null {
  if (fault !== null) return fault;
  if (!isAllowed) return 'Choose another way to release it';
  if (to !== null) return null;
  return hasSets
    ? 'Choose a group set first'
    : mayClass
      ? 'Make a group set first, or choose the class'
      : 'Make a group set first';
}
