import type { GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { fold } from '../text/index.js';
import type { RosterEntry } from './change.js';

/** A place as a class file names it. `set` null: in the set that follows the registrar's sections, whatever it is called here. */
export interface NamedPlace {
  readonly set: string | null;
  readonly group: string;
}

/** One set as a class file meets it: which of its groups a name means, and what each is called here. */
export interface KnownSet {
  readonly name: string;
  readonly isExclusive: boolean;
  /** By folded name. */
  readonly groupOf: ReadonlyMap<string, GroupId>;
  readonly nameOf: ReadonlyMap<GroupId, string>;
}

/** The sets of a course by `setKey`. */
export type KnownSets = ReadonlyMap<string, KnownSet>;

export const setKey = (set: string | null): string => (set === null ? '' : fold(set));

/** The heading under which our own class files tell the groups of a set; the plural says that someone may be in several. */
export const groupHeading = (set: { readonly name: string; readonly isExclusive: boolean }): string =>
  `${set.isExclusive ? 'Group' : 'Groups'} in ${set.name}`;
const ownHeading = /^(Groups?) in (.+)$/su;
export const isGroupHeading = (heading: string): boolean => ownHeading.test(heading);

/** The set that a column of groups tells of; a column of someone else's is called as its set. */
export function setOfHeading(heading: string): { readonly name: string; readonly isExclusive: boolean } {
  const own = ownHeading.exec(heading);
  return own ? { name: sure(own[2]), isExclusive: own[1] === 'Group' } : { name: heading, isExclusive: true };
}

/** Several names in one cell: semicolons part them, and one within a name is doubled. */
export const joinNames = (names: readonly string[]): string =>
  names.map((name) => name.replaceAll(';', ';;')).join('; ');

/** The names that `joinNames` wrote, or those that someone parted by semicolons. */
export function splitNames(cell: string): string[] {
  const parts = (cell.match(/;;|;|[^;]+/gu) ?? []).reduce<string[]>(
    (names, piece) =>
      piece === ';'
        ? [...names, '']
        : [...names.slice(0, -1), `${names.at(-1) ?? ''}${piece === ';;' ? ';' : piece}`],
    [''],
  );
  return [...new Set(parts.map((name) => name.trim()).filter((name) => name !== ''))];
}

/** The places that a row names by the key of their set. */
export function bySet(places: readonly NamedPlace[]): ReadonlyMap<string, readonly NamedPlace[]> {
  const keys = [...new Set(places.map((place) => setKey(place.set)))];
  return new Map(keys.map((key) => [key, places.filter((place) => setKey(place.set) === key)]));
}

/** What these places are to change, in words: `from` empty where they sat in none of the set's groups. */
export function placeChanges(
  known: RosterEntry,
  places: readonly NamedPlace[],
  sets: KnownSets,
): { field: string; from: string; to: string }[] {
  return [...bySet(places)].flatMap(([key, named]) => {
    const set = sets.get(key);
    const seats = set ? known.groups.filter((groupId) => set.nameOf.has(groupId)) : [];
    const wanted = named.map((place) => set?.groupOf.get(fold(place.group)));
    if (
      wanted.length === seats.length &&
      wanted.every((groupId) => groupId !== undefined && seats.includes(groupId))
    )
      return [];
    const from = seats.map((groupId) => sure(sure(set).nameOf.get(groupId))).join(', ');
    return [
      { field: sure(named[0]).set ?? 'Section', from, to: named.map((place) => place.group).join(', ') },
    ];
  });
}

/** Where someone sits once these places are theirs: what a row says of a set stands in the place of what was; other sets stay.
 * @param sets hold every group that is named by now. */
export function seatedIn(
  groups: readonly GroupId[],
  places: readonly NamedPlace[],
  sets: KnownSets,
): GroupId[] {
  const told = [...bySet(places).keys()].map((key) => sure(sets.get(key)));
  const others = groups.filter((groupId) => !told.some((set) => set.nameOf.has(groupId)));
  return [
    ...new Set([
      ...others,
      ...places.map((place) => sure(sure(sets.get(setKey(place.set))).groupOf.get(fold(place.group)))),
    ]),
  ];
}
