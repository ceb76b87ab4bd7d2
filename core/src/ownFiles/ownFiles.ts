import type { FileId } from '../ids/index.js';
import type { KindRules } from '../release/index.js';

/** Files that staff attached so that each copy has its own, which those in it change. Every version is kept. */
export type OwnFileAct = 'put';

export const ownFileRules: KindRules<OwnFileAct> = { acts: { put: ['member', 'staff'] } };

/** So many versions of one file are kept in one copy. */
export const mostVersions = 200;

/** The files that one copy has as its own: as they are attached now, then those that are attached no longer and were changed here.
 * @param changed the originals of which this copy has versions. */
export function originalsOf(
  attached: readonly { readonly id: FileId; readonly isPerGroup: boolean }[],
  changed: readonly FileId[],
): readonly FileId[] {
  const own = attached.filter(({ isPerGroup }) => isPerGroup).map(({ id }) => id);
  return [...new Set([...own, ...changed])];
}
