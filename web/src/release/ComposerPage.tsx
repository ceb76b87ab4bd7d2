import { Suspense } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { isProblem, problemOf, ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Empty, Page, Part, Waiting } from '../look/index.js';
import { ComposerBar } from './ComposerBar.js';
import { CopyPreview } from './CopyPreview.js';
import { InWork } from './InWork.js';
import { MarkingPart } from './MarkingPart.js';
import { useReadActivityQuery } from './releaseApi.js';
import { ToCheckHere } from './ToCheckHere.js';
import { useComposer } from './useComposer.js';
import { WhatPart } from './WhatPart.js';
import { WhenPart } from './WhenPart.js';
import { WhoPart } from './WhoPart.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 404px;
  min-height: 0;
  /* In a small or enlarged window one comes below the other, and the page scrolls. */
  @media (max-width: 900px) {
    display: block;
    overflow-y: auto;
  }
`;
const Left = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
`;
const Form = styled.div`
  grid-row: 2;
  background: var(--surface);
  overflow: auto;
  min-height: 0;
`;

export function ComposerPage() {
  const { activityId = '' } = useParams();
  const activity = useReadActivityQuery(activityId);
  if (isProblem(activity.error, 'not-found'))
    return <Empty title="No such activity">It may belong to another course.</Empty>;
  if (unshown(activity) !== undefined)
    return <ProblemStrip of={activity.error} onRetry={() => void activity.refetch()} />;
  return activity.currentData ? (
    <Composer key={activityId} activity={activity.currentData} reload={() => activity.refetch().unwrap()} />
  ) : (
    <Waiting what="the activity" rows={10} />
  );
}

interface ComposerProps {
  readonly activity: ActivityView;
  readonly reload: () => Promise<ActivityView>;
}

/** What, How, Who, When and Marking on one page, with what a group will see beside it. */
function Composer({ activity, reload }: ComposerProps) {
  const { dates } = useCourse();
  const composing = useComposer(activity, reload);
  const { draft, change, kind, settings, allowed, saving, sets, target, reached, groups } = composing;
  const refusal = composing.release.error ?? composing.changeReach.error;
  return (
    <Page>
      <ComposerBar composing={composing} />
      <Columns>
        <Left>
          <InWork composing={composing} />
          <Form>
            {saving.kind === 'failed' && (
              <ProblemStrip onRetry={() => void composing.flush()}>{saving.sentence}</ProblemStrip>
            )}
            {saving.kind === 'conflict' && (
              <ProblemStrip>
                Someone else changed this while you wrote. Yours is still here.{' '}
                <Button isSmall onPress={() => void composing.keepMine()}>
                  Keep mine
                </Button>{' '}
                <Button isSmall onPress={() => void composing.takeTheirs()}>
                  Use theirs
                </Button>
              </ProblemStrip>
            )}
            {refusal !== undefined && <ProblemStrip>{problemOf(refusal).detail}</ProblemStrip>}
            <ToCheckHere activity={activity} />
            <WhatPart composing={composing} />
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
                      settings={composing.typedSettings}
                      groups={target.mode === 'common' ? null : composing.named}
                      onChange={(next) => change({ settings: next as ActivityDraft['settings'] })}
                    />
                  </Suspense>
                </div>
              </Part>
            )}
            <WhoPart
              target={target}
              kind={kind}
              allowed={allowed}
              sets={sets}
              reach={reached}
              isReleased={activity.release !== null}
              onChange={composing.mean}
            />
            <WhenPart
              activity={activity}
              draft={draft}
              groups={reached?.groups ?? []}
              goesLiveAt={composing.goesLiveAt}
              isOut={composing.isOut}
              isWork={kind?.isWork ?? true}
              onSchedule={(schedule) => change({ schedule })}
              onGoesLive={composing.setGoesLiveAt}
            />
            {kind?.isMarked !== false && (
              <MarkingPart
                draft={draft}
                kind={kind}
                markFor={
                  target.mode === 'common'
                    ? 'student'
                    : kind && allowed.length > 0
                      ? kind.markFor(settings)
                      : 'group'
                }
                onChange={change}
              />
            )}
          </Form>
        </Left>
        <CopyPreview
          activityId={activity.id}
          draft={draft}
          kind={kind}
          target={target}
          groups={groups}
          dates={dates}
        />
      </Columns>
    </Page>
  );
}
