import type { GroupId, GroupSetId } from '../ids/index.js';
import type { Audience } from './facts.js';

export const theClass: Audience = { include: [{ kind: 'class' }], exclude: [] };

/** Every group of a set, also such as come later. */
export const wholeSet = (setId: GroupSetId): Audience => ({ include: [{ kind: 'set', setId }], exclude: [] });

export const someGroups = (setId: GroupSetId, groupIds: readonly GroupId[]): Audience => ({
  include: groupIds.map((groupId) => ({ kind: 'group', setId, groupId })),
  exclude: [],
});

/** The sets whose groups it names or takes whole, in its order, each once. */
export const setsOfAudience = ({ include }: Audience): GroupSetId[] => [
  ...new Set(include.flatMap((entry) => ('setId' in entry ? [entry.setId] : []))),
];

/** Whether it reaches this group, anyone who is in it. */
export const reachesGroup = (
  { include }: Audience,
  group: { readonly groupId: GroupId | null; readonly setId: GroupSetId | null },
): boolean =>
  include.some(
    (entry) =>
      (entry.kind === 'group' && entry.groupId === group.groupId) ||
      (entry.kind === 'set' && entry.setId === group.setId),
  );
