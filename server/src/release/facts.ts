import type { EnrolmentId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { stateAt } from '@jigsaw/core/release';
import type { CopyFacts, Extension, ReleaseFacts, ReleaseState, Schedule } from '@jigsaw/core/release';
import type { AudienceNow } from './evaluate.js';
import type { ActivityRow, CopyRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';

/** What a student was granted in an activity. */
export type OwnTime = ReadonlyMap<EnrolmentId, GrantedRow>;
export type GrantedRow = Pick<StudentExtensionRow, 'due' | 'closes' | 'reason'>;

/** Rows as the decision function wants them.
 * @param audienceNow with what its saved audiences reach.
 * @param ownTime what students were granted in this activity. */
export function factsOf(
  release: ReleaseRow,
  activity: ActivityRow,
  audienceNow: AudienceNow,
  ownTime: OwnTime,
): ReleaseFacts {
  return {
    courseId: release.courseId,
    state: stateOf(release),
    mode: release.mode,
    audience: audienceNow(release.audience),
    outsiders: release.outsiders,
    schedule: scheduleOf(activity),
    ownTime:
      ownTime.size === 0 ? noOwnTime : new Map([...ownTime].map(([id, row]) => [id, extensionOf(row)])),
  };
}

const noOwnTime: ReleaseFacts['ownTime'] = new Map();

export function stateOf({ state, stateAt }: Pick<ReleaseRow, 'state' | 'stateAt'>): ReleaseState {
  if (state === 'draft') return { state };
  assert(stateAt, `a ${state} release knows since when`);
  return state === 'scheduled'
    ? { state, goesLiveAt: stateAt.getTime() }
    : { state, since: stateAt.getTime() };
}

export function stateColumns(state: ReleaseState): Pick<ReleaseRow, 'state' | 'stateAt'> {
  if (state.state === 'draft') return { state: 'draft', stateAt: null };
  return {
    state: state.state,
    stateAt: new Date(state.state === 'scheduled' ? state.goesLiveAt : state.since),
  };
}

export const scheduleOf = ({ opens, due, closes }: ActivityRow): Schedule => ({
  opens: opens?.getTime() ?? null,
  due: due?.getTime() ?? null,
  closes: closes?.getTime() ?? null,
});

export const copyFactsOf = (copy: CopyRow, extension: GrantedRow | null): CopyFacts => ({
  groupId: copy.groupId,
  setId: copy.setId,
  extension: extension && extensionOf(extension),
});

export const extensionOf = ({ due, closes }: Pick<GrantedRow, 'due' | 'closes'>): Extension => ({
  due: due.getTime(),
  closes: closes?.getTime() ?? null,
});

/** Whether groups have it, or had it until it closed: changes to it then wait to be published. */
export function isWithGroups(release: ReleaseRow, activity: ActivityRow, now: Date): boolean {
  const { state } = stateAt(stateOf(release), scheduleOf(activity), now.getTime());
  return state === 'live' || state === 'closed';
}
