import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';
import type { ColumnMeaning } from './headings.js';
import { bySet, setKey, setOfHeading } from './places.js';
import type { KnownSets } from './places.js';
import type { PreviewRow, RowPerson, RowProblem } from './previewRows.js';
import type { Table } from '../files/index.js';

/** No one sits twice in a set that gives everyone one place; the set of sections and a set by its name may be the same one. */
export function severalGroups(
  table: Table,
  meanings: readonly ColumnMeaning[],
  { places }: RowPerson,
  sets: KnownSets,
): RowProblem[] {
  const wanted = newSets(table, meanings);
  const isExclusive = (key: string) =>
    key === '' || (sets.get(key) ?? wanted.get(key))?.isExclusive !== false;
  const sections = sets.get('');
  const own = (set: string | null) =>
    set !== null && sections !== undefined && sets.get(setKey(set)) === sections ? null : set;
  return [...bySet(places.map((place) => ({ ...place, set: own(place.set) })))].flatMap(
    ([key, named]): RowProblem[] => {
      const groups = [...new Map(named.map(({ group }) => [fold(group), group])).values()];
      return groups.length > 1 && isExclusive(key)
        ? [{ code: 'several-groups', set: sure(named[0]).set, groups }]
        : [];
    },
  );
}

const newSets = (table: Table, meanings: readonly ColumnMeaning[]) =>
  new Map(
    meanings.flatMap((meaning, at) => {
      const set = setOfHeading(sure(table.headings[at]));
      return meaning === 'group' ? [[setKey(set.name), set] as const] : [];
    }),
  );

/** Groups that a class file names and the course lacks, and the sets that they are to stand in. */
export interface LackingGroups {
  /** null: the set that follows sections. */
  readonly set: string | null;
  /** Whether the set itself is lacking. */
  readonly isNew: boolean;
  readonly isExclusive: boolean;
  readonly groups: readonly string[];
}

/** What must be made before these rows can be imported. Groups come in the bundle's order; those of other files by name, numbers in them
 * counted. Of a set that is lacking, the bundle's groups come with no one in them, too. */
export function lackingGroups(
  table: Table,
  meanings: readonly ColumnMeaning[],
  rows: readonly PreviewRow[],
  sets: KnownSets,
): LackingGroups[] {
  const wanted = newSets(table, meanings);
  const places = rows.flatMap((row) =>
    row.kind === 'new' || row.kind === 'changed' ? row.person.places : [],
  );
  const empty = (table.classes ?? []).filter(
    ({ set }) => set !== null && wanted.has(setKey(set)) && !sets.has(setKey(set)),
  );
  const named = bySet([...empty.map(({ set, title }) => ({ set, group: title })), ...places]);
  const inOrder = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
  return [...named].flatMap(([key, all]): LackingGroups[] => {
    const known = sets.get(key);
    const lacking = [...new Map(all.map(({ group }) => [fold(group), group] as const)).entries()].filter(
      ([name]) => !known?.groupOf.has(name),
    );
    if (lacking.length === 0) return [];
    const groups = lacking.map(([, name]) => name);
    const set = sure(all[0]).set;
    const listed =
      table.classes?.filter((each) => setKey(each.set) === key).map((each) => fold(each.title)) ?? [];
    const place = (name: string) =>
      listed.includes(fold(name)) ? listed.indexOf(fold(name)) : listed.length;
    const sorted = groups.toSorted((a, b) => place(a) - place(b) || inOrder.compare(a, b));
    return [{ set, isNew: !known, isExclusive: wanted.get(key)?.isExclusive ?? true, groups: sorted }];
  });
}
