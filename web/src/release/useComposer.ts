import { useMemo, useState } from 'react';
import { skipToken } from '@reduxjs/toolkit/query';
import { useNavigate, useSearchParams } from 'react-router';
import { ActivityDraft as Draft, draftOf } from '@jigsaw/contract/release';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { counted } from '@jigsaw/core/text';
import { isProblem } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { useNotice } from '../look/index.js';
import { mergeParts, useAct, useVersionedDraft } from '../page/index.js';
import { useListGroupSetsQuery } from '../sets/index.js';
import {
  backToWas,
  useChangeReachMutation,
  useCopyActivityMutation,
  useEditActivityMutation,
  useDeleteActivityMutation,
  useForeseeQuery,
  useReleaseActivityMutation,
  useRestoreActivityMutation,
  useWithdrawActivityMutation,
} from './releaseApi.js';
import type { ReleaseTarget } from './releaseTarget.js';
import { firstTarget, isForClass, isSameTarget, withMode } from './releaseTarget.js';
import { useInWork } from './useInWork.js';
import { useMeant } from './useMeant.js';

/** As staff write it: with what is in work, once groups have it. */
const writtenIn = (activity: ActivityView) => ({
  value: draftOf(activity.inWork ?? activity),
  version: activity.version,
});

/** What keeps a draft from being saved for the moment; it stays on the page as it was typed. */
function faultOf(draft: ActivityDraft, kind: KindOnPages | undefined): string | null {
  const issue =
    Draft.safeParse(draft).error?.issues[0] ?? kind?.settings.safeParse(draft.settings).error?.issues[0];
  return issue?.message ?? null;
}

export type Composing = ReturnType<typeof useComposer>;

/** An activity as it is being written, who it is meant for, and what can be done with it. */
export function useComposer(activity: ActivityView, reload: () => Promise<ActivityView>) {
  const { course, dates } = useCourse();
  const navigate = useNavigate();
  const [goesLiveAt, setGoesLiveAt] = useState<string | null>(null);
  const [edit] = useEditActivityMutation();
  const activityId = activity.id;
  const notice = useNotice();
  const now = useMemo(() => writtenIn(activity), [activity]);
  const kept = useVersionedDraft<ActivityDraft>({
    begin: () => writtenIn(activity),
    save: (value, version) => edit({ activityId, body: { ...value, version } }).unwrap(),
    read: async () => {
      return writtenIn(await reload());
    },
    inTab: {
      name: `activity ${activityId}`,
      pack: (draft) => draft,
      unpack: (packed) => (Draft.safeParse(packed).success ? (packed as ActivityDraft) : null),
    },
    merge: (base, mine, theirs) => mergeParts(base, mine, theirs, ['schedule', 'latePolicy', 'settings']),
    now,
    onNewer: () => notice('Someone else changed this activity. You see the new version.'),
  });
  const draft = kept.value;
  const kind = kindOf(draft.kind);
  const read = kind?.settings.safeParse(draft.settings);
  const settings: unknown = read?.data ?? draft.settings;
  const allowed = kind && read?.success ? kind.modes(settings) : [];
  const fault = faultOf(draft, kind);

  const listed = useListGroupSetsQuery(course.id);
  const sets = listed.data?.sets ?? [];
  const setIds = sets.map((set) => set.id);
  const [params] = useSearchParams();
  const first = firstTarget(activity.release, setIds, params.get('for'));
  const { target, was, mean, settle } = useMeant(activity.release, first);
  const isAllowed = allowed.includes(target.mode);
  const to = isAllowed && target.to.include.length > 0 ? target.to : null;
  const reach = useForeseeQuery(
    to === null ? skipToken : { activityId, body: { to, mode: target.mode, outsiders: target.outsiders } },
  );
  const reached = to === null ? undefined : reach.data;
  const groups = reached?.groups.filter((group) => group.isIn) ?? [];
  const named = useMemo(
    () =>
      (reached?.groups ?? []).flatMap(({ groupId, name, number, isIn }) =>
        isIn ? [{ id: groupId, name, number }] : [],
      ),
    [reached],
  );
  const students = reached?.students ?? 0;
  const isClass = to !== null && isForClass(target);
  const readers = sayReaders(isClass, groups.length, students);

  const change = (part: Partial<ActivityDraft>) => {
    const next = { ...draft, ...part };
    if (faultOf(next, kindOf(next.kind)) === null) kept.change(next);
    else kept.show(next);
  };
  // A due date that a kind does not have is there again when another is chosen.
  const [dueBefore, setDueBefore] = useState<string | null>(null);
  const chooseKind = (next: KindOnPages) => {
    if (next.name === draft.kind) return;
    const usual: unknown = next.settings.parse({});
    if (draft.schedule.due !== null) setDueBefore(draft.schedule.due);
    change({
      kind: next.name,
      settings: usual as ActivityDraft['settings'],
      points: next.usualPoints,
      schedule: { ...draft.schedule, due: next.isWork ? (draft.schedule.due ?? dueBefore) : null },
      rubric: next.usualPoints === null ? null : draft.rubric,
    });
    if (!next.modes(usual).includes(target.mode)) mean(withMode(target, 'own'));
  };

  const state = activity.release?.state.state ?? 'draft';
  const isOut = state !== 'draft' && state !== 'withdrawn';
  const releaseNow = async () => {
    if (to === null || !(await kept.flush())) return;
    const current = await reload();
    await release({
      activityId,
      body: { to, mode: target.mode, outsiders: target.outsiders, goesLiveAt, version: current.version },
    });
  };
  const withdraw = useAct(useWithdrawActivityMutation(), {
    says: () => `${draft.title} withdrawn. What was done in it stays.`,
    undo: () => releaseNow,
    undoLabel: 'Release it again',
  });
  const release = useAct(useReleaseActivityMutation(), {
    says: () =>
      `${goesLiveAt ? `Will be released on ${dates.dateTime(goesLiveAt)} to ` : 'Released to '}${readers}`,
    undo: () => () => withdraw(activityId),
    isRefusalShown: true,
  });
  const changeReach = useAct(useChangeReachMutation(), {
    says: () => `Now reaches ${readers}`,
    inverse: backToWas,
    refused: (refusal) => {
      if (isProblem(refusal, 'stale-write')) settle();
      return false;
    },
    isRefusalShown: true,
  });
  const applyReach = async () => {
    if (to === null || was === null) return;
    if (await changeReach({ activityId, body: { to, outsiders: target.outsiders, was } })) settle();
  };
  const makeCopy = useAct(useCopyActivityMutation());
  const inWork = useInWork(activity, kept, (written) => kept.follow(writtenIn(written)), readers);
  const restore = useAct(useRestoreActivityMutation());
  const deleteDraft = useAct(useDeleteActivityMutation(), {
    says: () => `${draft.title} deleted`,
    undo: () => () => restore(activityId),
  });
  const copyIt = async (setId: string | null) => {
    const copy = await makeCopy({ activityId, body: { keepsTitle: setId !== null } });
    if (copy) void navigate(`../release/${copy.id}${setId === null ? '' : `?for=${setId}`}`);
  };

  return {
    activity,
    draft,
    change,
    kind,
    chooseKind,
    settings,
    allowed,
    /** As they are typed, a space at the end, too, and what was never set as it usually is. */
    typedSettings: { ...(read?.data as object | undefined), ...draft.settings } as unknown,
    fault,
    saving: kept.state,
    flush: kept.flush,
    keepMine: kept.keepMine,
    takeTheirs: kept.takeTheirs,
    sets,
    target,
    mean,
    was,
    to,
    reached,
    groups,
    named,
    isClass,
    goesLiveAt,
    setGoesLiveAt,
    state,
    isOut,
    isReachChanged: isOut && !isSameTarget(target, firstTarget(activity.release, setIds)),
    /** Why it cannot be released yet. */
    why: sayWhyNot({
      hasSets: setIds.length > 0,
      mayClass: allowed.includes('common'),
      isAllowed,
      to,
      fault: fault ?? (read?.success ? (kind?.notReady?.(settings) ?? null) : null),
    }),
    release,
    releaseNow,
    withdrawNow: () => withdraw(activityId),
    inWork,
    deleteNow: async () => {
      if (await deleteDraft(activityId)) void navigate('../release');
    },
    readers,
    changeReach,
    applyReach,
    copyIt,
  };
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
  to: ReleaseTarget['to'] | null;
  fault: string | null;
}): string | null {
  if (fault !== null) return fault;
  if (!isAllowed) return 'Choose another way to release it';
  if (to !== null) return null;
  return hasSets
    ? 'Choose who gets it first'
    : mayClass
      ? 'Create a group set first, or choose the class'
      : 'Create a group set first';
}

/** “12 groups, 48 students”; of a copy for people by name alone, there are no groups to count. */
function sayReaders(isClass: boolean, groups: number, students: number): string {
  const people = counted(students, 'student');
  if (isClass) return `the class, ${people}`;
  return groups === 0 ? people : `${counted(groups, 'group')}, ${people}`;
}
