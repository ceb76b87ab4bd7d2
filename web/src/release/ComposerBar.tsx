import { setsOfAudience } from '@jigsaw/core/release';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Bar, Button, ButtonLink, Muted, Small, Tag } from '../look/index.js';
import { WhatWouldChange } from '../foreseen/index.js';
import { saySaved } from '../page/index.js';
import { stateLook, stateWords } from './states.js';
import { CopyButton } from './CopyButton.js';
import { isForStaff } from './releaseTarget.js';
import type { Composing } from './useComposer.js';

/** How far the activity has come, and what can be done with it as it stands. */
export function ComposerBar({ composing }: { readonly composing: Composing }) {
  const { dates } = useCourse();
  const {
    activity,
    draft,
    fault,
    saving,
    state,
    isOut,
    sets,
    target,
    isReachChanged,
    to,
    isClass,
    groups,
    why,
  } = composing;
  const { release, reached, goesLiveAt } = composing;
  const short = isClass
    ? 'the class'
    : isForStaff(target)
      ? 'staff only'
      : groups.length > 0
        ? counted(groups.length, 'group')
        : counted(reached?.students ?? 0, 'student');
  const label = goesLiveAt ? ` on ${dates.dateTime(goesLiveAt)}` : '';
  const { was } = composing;
  const withdrawal = { planned: { act: 'withdraw', activityId: activity.id }, act: { label: 'Withdraw', does: () => void composing.withdrawNow() } } as const; // prettier-ignore
  // Where no one is chosen, there is no change to look at.
  const change = to && was && { planned: { act: 'reach', activityId: activity.id, to, outsiders: target.outsiders, was }, act: { label: `Change to ${short}`, does: () => void composing.applyReach() } } as const; // prettier-ignore
  const looked = isReachChanged ? change : withdrawal;
  return (
    <Bar>
      <h1 style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {draft.title || 'Untitled'}
      </h1>
      <Tag $look={stateLook[state]}>{stateWords[state]}</Tag>
      <Small role="status">{fault === null ? saySaved(saving, dates.time) : 'Not saved yet'}</Small>
      <span className="grow" />
      <CopyButton
        sets={isOut ? sets.filter((set) => !setsOfAudience(target.to).includes(set.id)) : []}
        onCopy={(setId) => void composing.copyIt(setId)}
      />
      {activity.release === null && (
        <Button kind="quiet" onPress={() => void composing.deleteNow()}>
          Delete draft
        </Button>
      )}
      {isOut ? (
        <>
          {activity.release && activity.points !== null && (
            <ButtonLink kind="quiet" to={`../marks/${activity.release.id}`}>
              To the Marking desk
            </ButtonLink>
          )}
          {looked && <WhatWouldChange {...looked} />}
          <Button onPress={() => void composing.withdrawNow()}>Withdraw</Button>
          {isReachChanged && (
            <Button
              kind="main"
              isDisabled={to === null || composing.changeReach.isBusy}
              onPress={() => void composing.applyReach()}
            >
              Change to {short}
            </Button>
          )}
        </>
      ) : (
        <>
          {why && <Muted>{why}</Muted>}
          <Button
            kind="main"
            isDisabled={why !== null || release.isBusy || reached === undefined}
            onPress={() => void composing.releaseNow()}
          >
            {release.isBusy ? 'Releasing…' : to === null ? 'Release' : `Release to ${short}${label}`}
          </Button>
        </>
      )}
    </Bar>
  );
}
