import { FirstSchema1764000000000 } from './1764000000000-firstSchema.js';

/** In the order in which they run; one that ran anywhere never changes again. */
export const migrations = [FirstSchema1764000000000];
