import type { GroupId, GroupSetId } from '../ids/index.js';
import { noOne } from '../audiences/index.js';
import type { Resolved } from '../audiences/index.js';
import type { AudienceId } from '../ids/index.js';
import type { Audience, KeptAudience, PlainAudience } from './facts.js';

export const theClass: PlainAudience = { include: [{ kind: 'class' }], exclude: [] };

/** Every group of a set, also such as come later. */
export const wholeSet = (setId: GroupSetId): PlainAudience => ({
  include: [{ kind: 'set', setId }],
  exclude: [],
});

export const someGroups = (setId: GroupSetId, groupIds: readonly GroupId[]): PlainAudience => ({
  include: groupIds.map((groupId) => ({ kind: 'group', setId, groupId })),
  exclude: [],
});

/** With what its saved audiences reach now.
 * @param resolve what a saved one reaches; left out: no one, where no audience decides anything. */
export const evaluated = (
  { include, exclude }: KeptAudience,
  resolve: (audienceId: AudienceId) => Pick<Resolved, 'people' | 'groups'> = () => noOne,
): Audience => ({
  include: include.map((entry) => {
    if (entry.kind !== 'audience') return entry;
    const { people, groups } = resolve(entry.audienceId);
    return { ...entry, people, groups };
  }),
  exclude,
});

export const audiencesOf = ({ include }: KeptAudience): AudienceId[] =>
  include.flatMap((entry) => (entry.kind === 'audience' ? [entry.audienceId] : []));

/** The sets whose groups it names or takes whole, in its order, each once; those of a saved audience, where it is evaluated. */
export const setsOfAudience = ({ include }: KeptAudience | Audience): GroupSetId[] => [
  ...new Set(
    include.flatMap((entry) =>
      'setId' in entry ? [entry.setId] : 'groups' in entry ? [...entry.groups.values()] : [],
    ),
  ),
];

/** Whether it reaches this group, anyone who is in it. */
export const reachesGroup = (
  { include }: Audience,
  group: { readonly groupId: GroupId | null; readonly setId: GroupSetId | null },
): boolean =>
  include.some(
    (entry) =>
      (entry.kind === 'group' && entry.groupId === group.groupId) ||
      (entry.kind === 'set' && entry.setId === group.setId) ||
      (entry.kind === 'audience' && group.groupId !== null && entry.groups.has(group.groupId)),
  );
