import { v7 } from 'uuid';
import type { Id } from '@jigsaw/core/ids';

/** A new id; sorts by the time it was made. */
export const newId = <Kind extends string>(): Id<Kind> => v7() as Id<Kind>;
