import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { SightOf } from '@jigsaw/core/sightlines';

/** Who a column of the matrix stands for. */
export interface SightColumn {
  readonly key: string;
  readonly of: SightOf;
  /** Of a group; null: it is none. */
  readonly number: number | null;
  readonly name: string;
}

export interface SightSpot {
  readonly activityId: SightlinesView['activities'][number]['activityId'];
  readonly column: string;
}

/** What the columns are: the groups of one set, students one by one, or saved audiences. */
export type ColumnsBy = { readonly kind: 'set'; readonly set: SightlinesView['sets'][number] } | { readonly kind: 'students' } | { readonly kind: 'audiences' }; // prettier-ignore
export const students = 'students';
export const audiences = 'audiences';

/** @param chosen as the address has it: a set's id, or one of the words above; what it does not know is the usual set. */
export function columnsBy(view: SightlinesView, chosen: string | null): ColumnsBy | null {
  if (chosen === students) return { kind: 'students' };
  if (chosen === audiences) return { kind: 'audiences' };
  const set = view.sets.find(({ setId }) => setId === chosen) ?? usualSet(view);
  return set ? { kind: 'set', set } : null;
}

export function columnsOf(view: SightlinesView, by: ColumnsBy | null): readonly SightColumn[] {
  switch (by?.kind) {
    case undefined:
      return [];
    case 'set': {
      const { setId, groups } = by.set;
      const own = groups.map(({ groupId, number, name }): SightColumn => ({ key: groupId, of: { kind: 'group', groupId, setId }, number, name })); // prettier-ignore
      return [...own, { key: 'none', of: { kind: 'unplaced', setId }, number: null, name: 'No group' }];
    }
    case 'students':
      return view.people
        .filter(({ role, leftAt }) => role === 'student' && leftAt === null)
        .map(({ enrolmentId, name }): SightColumn => ({
          key: enrolmentId,
          of: { kind: 'person', enrolmentId },
          number: null,
          name,
        })) // prettier-ignore
        .toSorted((a, b) => a.name.localeCompare(b.name));
    case 'audiences':
      return view.audiences.map(({ audienceId, name, people }) => ({ key: audienceId, of: { kind: 'people', people }, number: null, name })); // prettier-ignore
  }
}

/** The set whose groups have most of what was released. */
export function usualSet({ sets, activities }: SightlinesView): SightlinesView['sets'][number] | undefined {
  const count = new Map<string, number>();
  for (const { release } of activities)
    for (const setId of new Set(release?.copies.flatMap((copy) => copy.setId ?? [])))
      count.set(setId, (count.get(setId) ?? 0) + 1);
  const most = (setId: string) => count.get(setId) ?? 0;
  return sets.toSorted((a, b) => most(b.setId) - most(a.setId))[0];
}
