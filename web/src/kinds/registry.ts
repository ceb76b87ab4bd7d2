import { discussionKind } from '../discussion/index.js';
import { assignmentKind, folderKind } from '../handin/index.js';
import { wikiKind } from '../wiki/index.js';
import type { KindOnPages } from './kind.js';

/** The kinds that there are, in the order in which they are offered. */
export const kinds = [assignmentKind, discussionKind, wikiKind, folderKind] as readonly KindOnPages[];

/** A kind by its name; one that this page does not know yet, after an update, has none. */
export const kindOf = (name: string): KindOnPages | undefined => kinds.find((kind) => kind.name === name);
