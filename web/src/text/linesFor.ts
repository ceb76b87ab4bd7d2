import { createContext } from 'react';
import type { GroupId } from '@jigsaw/core/ids';

/** A group that a line of a brief can be for. */
export interface LineGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly number: number;
}

/** The groups that get what is written here. */
export const LineGroups = createContext<readonly LineGroup[]>([]);
