import type { EnrolmentId, GroupId } from '../ids/index.js';
import type { Role } from '../course/index.js';
import { assert } from '../ids/index.js';
import { sameAddress } from '../course/index.js';
import { sure } from '../lists/index.js';
import type { RosterPerson } from './person.js';

/** One person in a course, with everything that a change of the roster can touch. */
export interface RosterEntry extends RosterPerson {
  readonly role: Role;
  /** false: left the course. Work and marks stay; places in groups do not. */
  readonly isHere: boolean;
  /** Where they sit now, in every set. */
  readonly groups: readonly GroupId[];
  /** The other entry of the same person that this one was joined to; null: it stands for itself. */
  readonly joinedTo: EnrolmentId | null;
}

export type Roster = ReadonlyMap<EnrolmentId, RosterEntry>;

/** The fields that one change sets; `attributes` holds the touched ones only, null where there is none. */
export interface EntryFields {
  readonly email?: string;
  readonly name?: string;
  readonly familyName?: string | null;
  readonly reading?: string | null;
  readonly number?: string | null;
  readonly role?: Role;
  readonly isHere?: boolean;
  readonly groups?: readonly GroupId[];
  readonly joinedTo?: EnrolmentId | null;
  readonly attributes?: Readonly<Record<string, string | null>>;
}

/** What happens to one person. Data, so that undo, history and tests use the same value. */
export type EntryChange =
  | { readonly kind: 'add'; readonly enrolmentId: EnrolmentId; readonly entry: RosterEntry }
  | { readonly kind: 'remove'; readonly enrolmentId: EnrolmentId; readonly entry: RosterEntry }
  | {
      readonly kind: 'set';
      readonly enrolmentId: EnrolmentId;
      readonly from: EntryFields;
      readonly to: EntryFields;
    };

/** One act on the roster, of one person or of a whole class file. All of it is done, or none. */
export type RosterChange = readonly EntryChange[];

export type ChangedRoster =
  | { readonly ok: true; readonly roster: Roster }
  | { readonly ok: false; readonly conflicts: readonly EnrolmentId[]; readonly fault: RosterFault | null };

/** What a roster may never be. */
export type RosterFault =
  | { readonly code: 'no-instructor' }
  | { readonly code: 'address-twice'; readonly email: string; readonly names: readonly [string, string] }
  | { readonly code: 'number-twice'; readonly number: string; readonly names: readonly [string, string] };

export const inverseOf = (change: RosterChange): RosterChange =>
  change
    .map((each): EntryChange => {
      if (each.kind === 'add') return { ...each, kind: 'remove' };
      if (each.kind === 'remove') return { ...each, kind: 'add' };
      return { ...each, from: each.to, to: each.from };
    })
    .reverse();

/** The roster afterwards, or everyone who is no longer as the change found them. What it does not touch may have changed meanwhile. */
export function applyChange(roster: Roster, change: RosterChange): ChangedRoster {
  const next = new Map(roster);
  const conflicts: EnrolmentId[] = [];
  for (const each of change) {
    const now = next.get(each.enrolmentId);
    if (each.kind === 'add') {
      // Anyone who came once and left is still known; adding them again is no conflict.
      if (now?.isHere) conflicts.push(each.enrolmentId);
      else next.set(each.enrolmentId, each.entry);
    } else if (!now) conflicts.push(each.enrolmentId);
    else if (each.kind === 'remove') next.delete(each.enrolmentId);
    else if (!holds(now, each.from)) conflicts.push(each.enrolmentId);
    else next.set(each.enrolmentId, withFields(now, each.to));
  }
  if (conflicts.length > 0) return { ok: false, conflicts, fault: null };
  const fault = faultOf(next);
  // A fault that was there before is no reason to refuse a change that has nothing to do with it.
  return fault && !faultOf(roster) ? { ok: false, conflicts: [], fault } : { ok: true, roster: next };
}

/** An attribute's value; null: none. Of an attribute that is called like something that every object has, too. */
export const valueOf = ({ attributes }: Pick<RosterEntry, 'attributes'>, name: string): string | null =>
  Object.hasOwn(attributes, name) ? sure(attributes[name]) : null;

/** What setting these fields would change; null: nothing. `from` is filled in from the entry. */
export function changeOf(enrolmentId: EnrolmentId, entry: RosterEntry, to: EntryFields): EntryChange | null {
  const keys = (Object.keys(to) as (keyof EntryFields)[]).filter(
    (key) => key !== 'attributes' && !isSame(entry[key], to[key]),
  );
  const attributes = Object.entries(to.attributes ?? {}).filter(
    ([key, value]) => valueOf(entry, key) !== value,
  );
  if (keys.length === 0 && attributes.length === 0) return null;
  const pick = (source: object) => Object.fromEntries(keys.map((key) => [key, (source as EntryFields)[key]]));
  const touched = attributes.length > 0;
  return {
    kind: 'set',
    enrolmentId,
    from: {
      ...pick(entry),
      ...(touched && {
        attributes: Object.fromEntries(attributes.map(([key]) => [key, valueOf(entry, key)])),
      }),
    },
    to: { ...pick(to), ...(touched && { attributes: Object.fromEntries(attributes) }) },
  };
}

/** Leaving frees every place; so does becoming staff, who are members of no group. */
export const dropped: EntryFields = { isHere: false, groups: [] };
export const asRole = (role: Role): EntryFields => (role === 'student' ? { role } : { role, groups: [] });

/** Makes one person of two entries: the one that stays takes what it lacks from the other, which leaves.
 * @param setOf what someone can have one place in only: the set of a group, or the group itself where one may be in several. If both have
 *   a place in it, that of the one that stays counts. */
export function joinChange(
  roster: Roster,
  keepId: EnrolmentId,
  otherId: EnrolmentId,
  setOf: (groupId: GroupId) => string,
): RosterChange {
  const keep = roster.get(keepId);
  const other = roster.get(otherId);
  assert(keep && other && keepId !== otherId, 'two entries of one roster are joined');
  const taken = new Set(keep.groups.map(setOf));
  const groups =
    keep.role === 'student'
      ? [...keep.groups, ...other.groups.filter((groupId) => !taken.has(setOf(groupId)))]
      : keep.groups;
  // What the other's was, is theirs no longer: a number is no one's twice.
  const leaves = changeOf(otherId, other, { ...dropped, number: null, joinedTo: keepId });
  const stays = changeOf(keepId, keep, {
    groups,
    isHere: keep.isHere || other.isHere,
    number: keep.number ?? other.number,
    reading: keep.reading ?? other.reading,
    familyName: keep.familyName ?? other.familyName,
    attributes: { ...other.attributes, ...keep.attributes },
  });
  return [leaves, stays].filter((each) => each !== null);
}

const isSame = (a: unknown, b: unknown): boolean =>
  Array.isArray(a) && Array.isArray(b)
    ? a.length === b.length && a.toSorted().every((each, at) => each === b.toSorted()[at])
    : a === b;

function holds(entry: RosterEntry, fields: EntryFields): boolean {
  const { attributes = {}, ...plain } = fields;
  return (
    Object.entries(plain).every(([key, value]) => isSame(entry[key as keyof typeof plain], value)) &&
    Object.entries(attributes).every(([key, value]) => valueOf(entry, key) === value)
  );
}

function withFields(entry: RosterEntry, { attributes, ...plain }: EntryFields): RosterEntry {
  if (!attributes) return { ...entry, ...plain };
  const all = { ...entry.attributes, ...attributes };
  const kept = Object.entries(all).filter((pair): pair is [string, string] => pair[1] !== null);
  return { ...entry, ...plain, attributes: Object.fromEntries(kept) };
}

function faultOf(roster: Roster): RosterFault | null {
  const byAddress = new Map<string, string>();
  const byNumber = new Map<string, string>();
  let hasInstructor = roster.size === 0;
  for (const { email, number, name, role, isHere } of roster.values()) {
    if (isHere && role === 'instructor') hasInstructor = true;
    const address = byAddress.get(sameAddress(email));
    if (address !== undefined) return { code: 'address-twice', email, names: [address, name] };
    byAddress.set(sameAddress(email), name);
    if (number === null) continue;
    const holder = byNumber.get(number);
    if (holder !== undefined) return { code: 'number-twice', number, names: [holder, name] };
    byNumber.set(number, name);
  }
  return hasInstructor ? null : { code: 'no-instructor' };
}
