import type { ReleasedTo } from '@jigsaw/contract/release';
import { assert } from '@jigsaw/core/ids';
import type { Audience } from '@jigsaw/core/release';
import type { ReleaseRow } from './release.rows.js';

export function audienceOf(to: ReleasedTo): Audience {
  switch (to.kind) {
    case 'class':
      return { include: [{ kind: 'class' }], exclude: [] };
    case 'set':
      return { include: [{ kind: 'set', setId: to.setId }], exclude: [] };
    case 'groups':
      return {
        include: [...new Set(to.groupIds)].map((groupId) => ({ kind: 'group', groupId })),
        exclude: [],
      };
  }
}

export function toOf({ audience, setId }: Pick<ReleaseRow, 'audience' | 'setId'>): ReleasedTo {
  if (setId === null) return { kind: 'class' };
  const groupIds = audience.include.flatMap((entry) => (entry.kind === 'group' ? [entry.groupId] : []));
  if (groupIds.length === 0) return { kind: 'set', setId: setId };
  assert(groupIds.length === audience.include.length, 'a release is to a set or to groups of it');
  return { kind: 'groups', setId: setId, groupIds };
}
