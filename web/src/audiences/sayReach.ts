import type { AudienceView } from '@jigsaw/contract/audiences';
import { counted } from '@jigsaw/core/text';

/** How many an audience reaches now. */
export const sayReach = ({ people, groups }: Pick<AudienceView, 'people' | 'groups'>): string =>
  people === 0
    ? 'no one now'
    : [groups > 0 && counted(groups, 'group'), counted(people, 'person', 'people')]
        .filter(Boolean)
        .join(', ');
