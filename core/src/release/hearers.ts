import type { EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import type { Audience, ReleaseFacts } from './facts.js';

/** To whom it is told, besides staff, that something changed: members of these groups, of any group of these sets, these people, or everybody.
 * That it changed, never what: whoever hears asks, and is answered as always. */
export interface Hearers {
  readonly groupIds: readonly GroupId[];
  readonly setIds: readonly GroupSetId[];
  readonly enrolmentIds: readonly EnrolmentId[];
  readonly isForAll: boolean;
  readonly isForStaff?: true;
}

/** Whom a release reaches. */
export const hearersOfAudience = ({ include }: Audience): Hearers => ({
  groupIds: include.flatMap((entry) => (entry.kind === 'group' ? [entry.groupId] : [])),
  setIds: include.flatMap((entry) => (entry.kind === 'set' ? [entry.setId] : [])),
  enrolmentIds: include.flatMap((entry) => (entry.kind === 'person' ? [entry.enrolmentId] : [])),
  isForAll: include.some((entry) => entry.kind === 'class'),
});

/** Of one copy: its group, or everybody whom a copy for all or a read-along reaches.
 * @param owner whose it is alone, where each student hands in for themselves: then nobody else has a part in it, teammates neither. */
export function hearersOfCopy(
  { mode, audience }: Pick<ReleaseFacts, 'mode' | 'audience'>,
  groupId: GroupId | null,
  owner: EnrolmentId | null = null,
): Hearers {
  const nobody = { groupIds: [], setIds: [], enrolmentIds: [], isForAll: false };
  if (owner !== null) return { ...nobody, enrolmentIds: [owner], isForStaff: true };
  if (mode === 'own' && groupId !== null) return { ...nobody, groupIds: [groupId] };
  return hearersOfAudience(audience);
}
