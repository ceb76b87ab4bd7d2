import type { ActivityId } from '@jigsaw/core/ids';

export interface DropTarget {
  readonly key: unknown;
  readonly dropPosition: 'before' | 'after' | 'on';
}

/** Before which of a list a drop lands.
 * @param ids of the list, in their order.
 * @param id of what is dropped, from this list or another one.
 * @returns null: at the end; undefined: it stays where it is. */
export function landingOf(
  ids: readonly ActivityId[],
  id: ActivityId,
  { key, dropPosition }: DropTarget,
): ActivityId | null | undefined {
  if (key === id) return undefined;
  const others = ids.filter((each) => each !== id);
  const before = others[others.indexOf(key as ActivityId) + (dropPosition === 'after' ? 1 : 0)] ?? null;
  const isHere = ids.includes(id);
  return isHere && before === (ids[ids.indexOf(id) + 1] ?? null) ? undefined : before;
}
