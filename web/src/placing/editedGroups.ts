import type { BoardGroup, EditGroups } from '@jigsaw/contract/sets';

type Edited = EditGroups['groups'][number];

/** A group as an edit of all groups sends it, unchanged. */
export const asItIs = ({ id, name, capacity, isLocked, version }: BoardGroup): Edited => ({
  id,
  name,
  capacity,
  isLocked,
  version,
});

/** A group that such an edit adds. */
export const added = (name: string): Edited => ({
  id: null,
  name,
  capacity: null,
  isLocked: false,
  version: 1,
});
