import type { RosterChange } from '@jigsaw/core/roster';

export interface Renamed {
  readonly from: string;
  readonly to: string;
}

/** Which name became which in a change that renames an attribute; null: no one had it. */
export function renamedIn(change: RosterChange): Renamed | null {
  const [first] = change;
  if (first?.kind !== 'set') return null;
  const names = Object.entries(first.to.attributes ?? {});
  const from = names.find(([, value]) => value === null)?.[0];
  const to = names.find(([, value]) => value !== null)?.[0];
  return from === undefined || to === undefined ? null : { from, to };
}
