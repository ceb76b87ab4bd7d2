import { useRef } from 'react';
import type { BoardGroup } from '@jigsaw/contract/sets';
import { useAct } from '../page/index.js';
import { useEditGroupMutation } from './placingApi.js';

/** What is done to a group by one press on the Board. */
export function useGroupEdits() {
  const mutation = useEditGroupMutation();
  const edit = useAct(mutation);
  const bodyOf = ({ name, capacity, version }: BoardGroup) => ({ name, capacity, version });
  const before = useRef<number | null>(null);
  const letHold = useAct(mutation, {
    says: (group) => `${group.name} may hold ${group.capacity}`,
    undo: (group) => {
      const capacity = before.current;
      return () => edit({ groupId: group.id, body: { ...bodyOf(group), capacity } });
    },
  });
  return {
    /** So many places in this group, whatever the others of its set have. */
    letHold: (group: BoardGroup, capacity: number) => {
      before.current = group.capacity;
      void letHold({ groupId: group.id, body: { ...bodyOf(group), capacity } });
    },
    /** Whether people join and leave the group; resolves to false where it was refused. */
    lock: async (group: BoardGroup, isLocked: boolean): Promise<boolean> =>
      (await edit({ groupId: group.id, body: { ...bodyOf(group), isLocked } })) !== null,
  };
}
