import { createContext } from 'react';
import type { GroupId } from '@jigsaw/core/ids';

/** A group that gets what is written. */
export interface NamedGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly number: number;
}

/** The groups that get what is written here. */
export const LineGroups = createContext<readonly NamedGroup[]>([]);
