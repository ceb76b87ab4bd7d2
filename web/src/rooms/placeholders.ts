import type { CopyHead } from '@jigsaw/contract/rooms';
import type { PlaceholderValues } from '@jigsaw/core/text';

/** What the blanks of a text stand for in this copy; in a copy for all they stand for everyone. */
export const valuesOf = ({ group, members }: Pick<CopyHead, 'group' | 'members'>): PlaceholderValues => ({
  groupName: group?.name ?? 'the class',
  groupNumber: group?.number ?? 0,
  memberNames: group ? members.map((member) => member.name) : ['everyone'],
});
