import type { ActivityView } from '@jigsaw/contract/release';
import { counted, namesTogether } from '@jigsaw/core/text';

const ways = { own: '', 'read-along': ', reading along', common: ', one copy' } as const;
/** Who it goes to, in words. */
export function sayTo({
  to,
  setNames,
  audienceNames,
  groups,
  students,
  mode,
}: NonNullable<ActivityView['release']>): string {
  const people = to.include.filter(({ kind }) => kind === 'person').length;
  // Groups of saved audiences are counted with those of sets.
  const reached =
    audienceNames.length > 0 && groups === 0 ? counted(students, 'student') : counted(groups, 'group');
  const sets = setNames.length === 0 ? null : namesTogether(setNames);
  const parts = [
    to.include.some(({ kind }) => kind === 'class') ? 'The class' : null,
    sets,
    audienceNames.length > 0 ? namesTogether(audienceNames) : null,
    to.include.some(({ kind }) => kind === 'staff') ? 'Staff only' : null,
    people > 0 ? counted(people, 'student') : null,
  ].filter((part) => part !== null);
  const without = to.exclude.length > 0 ? `, except ${counted(to.exclude.length, 'student')}` : '';
  const many = setNames.length + audienceNames.length > 0 ? `: ${reached}` : '';
  return `${namesTogether(parts)}${many}${without}${ways[mode]}`;
}
